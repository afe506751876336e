// Plain figures of the curves: a true minus, no negative zero, a dash where there is none.
export function signed(value: number | null, digits: number, plus = false): string {
  if (value === null) return '—';
  if (Math.abs(value) >= 1e6) return '∞';
  const said = Math.abs(value).toFixed(digits);
  const sign = value < 0 && Number(said) !== 0 ? '−' : plus ? '+' : '';
  return sign + said;
}
