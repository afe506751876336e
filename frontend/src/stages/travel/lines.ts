// The lines of the plot: as planned, as built, and with something moved; left and right only where they differ.
import type { PlotLine } from '$parts/plot';
import { TRAVEL } from './texts';

type Values = (number | null)[];
interface Curve {
  left: Values;
  right?: Values | null;
}
const same = (a: Values, b: Values) => a.every((v, i) => Math.abs((v ?? 0) - (b[i] ?? 0)) < 1e-7);

function pair(curve: Curve | null | undefined, planned: Curve, name: string, look: Partial<PlotLine>): PlotLine[] {
  if (!curve) return [];
  const other = curve.right && !same(curve.left, curve.right) && !same(curve.right, planned.right ?? []);
  return [
    { name, values: curve.left, ...look },
    ...(other ? [{ name: '', values: curve.right!, dashed: true, ...look }] : []),
  ];
}

export function linesOf(
  planned: Curve | null | undefined,
  built: Curve | null | undefined,
  moved: Curve | null | undefined,
): PlotLine[] {
  if (!planned) return [];
  const two = planned.right && !same(planned.left, planned.right);
  const name = two ? TRAVEL.left : planned.right ? `${TRAVEL.left} = ${TRAVEL.right}` : '';
  return [
    { name, values: planned.left },
    ...(two ? [{ name: TRAVEL.right, values: planned.right!, dashed: true }] : []),
    ...pair(built, planned, TRAVEL.built, { built: true }),
    ...pair(moved, planned, TRAVEL.changed, { bright: true }),
  ];
}
