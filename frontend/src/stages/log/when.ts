// When an entry was made, shortly; the year only where it is another.
const DAY = { day: '2-digit', month: 'short', hour: '2-digit', minute: '2-digit' } as const;

export function when(at: string, now = new Date()): string {
  const date = new Date(at);
  const other = date.getFullYear() !== now.getFullYear();
  return date.toLocaleString('en-GB', other ? { ...DAY, year: 'numeric' } : DAY);
}
