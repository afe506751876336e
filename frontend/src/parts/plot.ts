// Scales, ticks and curves of a plot over a drive.
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';

export interface PlotLine {
  name: string;
  values: (number | null)[];
  dashed?: boolean;
  bright?: boolean;
  built?: boolean;
}
export const EDGE = { left: 64, right: 18, top: 40, bottom: 46 };
const APART = 18; // px between names at the ends of lines

/** Scales over a drive and over all that is drawn, with a little room above and below. */
export function scales(drive: number[], lines: PlotLine[], width: number, height: number) {
  const all = lines.flatMap((l) => l.values.filter((v): v is number => v !== null));
  const [low, high] = all.length ? [Math.min(...all), Math.max(...all)] : [-1, 1];
  const pad = all.length ? Math.max((high - low) * 0.08, Math.abs(high) * 1e-3, 1e-4) : 0;
  const x = scaleLinear([drive[0]!, drive.at(-1)!], [EDGE.left, width - EDGE.right]);
  const y = scaleLinear([low - pad, high + pad], [height - EDGE.bottom, EDGE.top]);
  return { x, y };
}
export type Scales = ReturnType<typeof scales>;

/** A curve with gaps where it is not known. */
export const curve = (drive: number[], values: (number | null)[], { x, y }: Scales): string =>
  line<number | null>()
    .defined((v) => v !== null)
    .x((_, i) => x(drive[i]!))
    .y((v) => y(v ?? 0))
    .digits(1)(values) ?? '';

/** Names at the right ends of the lines, kept apart where they would lie on each other. */
export function ends(lines: PlotLine[], { y }: Scales): (PlotLine & { at: number })[] {
  const placed = lines
    .filter((l) => l.name)
    .map((l) => ({ ...l, at: y(l.values.findLast((v) => v !== null) ?? 0) }))
    .sort((a, b) => a.at - b.at);
  placed.forEach((l, i) => (l.at = i ? Math.max(l.at, placed[i - 1]!.at + APART) : Math.max(l.at, EDGE.top + 10)));
  return placed;
}

/** The row of a drive nearest to a place on the plot. */
export function rowAt(drive: number[], px: number, { x }: Scales): number {
  const step = (drive.at(-1)! - drive[0]!) / (drive.length - 1);
  return Math.min(Math.max(Math.round((x.invert(px) - drive[0]!) / step), 0), drive.length - 1);
}

/** A figure at a tick: a minus is a minus, and no more digits than it has. */
export const tick = (v: number): string => {
  const said = String(+v.toPrecision(10));
  return v < 0 ? `−${said.slice(1)}` : said;
};
