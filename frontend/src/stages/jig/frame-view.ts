// The frame laid on the drawing: from three sides or turned by hand; what belongs to it, its shape, arrows magnified.
import type { JigView } from '$lib/api/client';
import { MAGNIFIED } from './texts';

export type P3 = readonly [number, number, number];
export type Side = 'above' | 'side' | 'behind' | 'wire';
export type Spot = { x: number; y: number };
export type Point = JigView['points'][number];
export interface Turn {
  yaw: number; // degrees about the vertical
  tilt: number; // degrees over the floor
}

const SIDES: Record<Exclude<Side, 'wire'>, [P3, P3]> = {
  above: [
    [-1, 0, 0],
    [0, -1, 0],
  ], // nose to the left, as from its left side
  side: [
    [-1, 0, 0],
    [0, 0, 1],
  ],
  behind: [
    [0, -1, 0],
    [0, 0, 1],
  ],
};
/** Which of the ellipses of doubt belongs to a side; none while it is turned by hand. */
export const ELLIPSE: Record<Side, number> = { above: 0, behind: 1, side: 2, wire: -1 };
const dot = (a: P3, b: P3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/** Right and up of the drawing, in the axes of the car. */
function axesOf(side: Side, turn: Turn): [P3, P3] {
  if (side !== 'wire') return SIDES[side];
  const [a, b] = [(turn.yaw * Math.PI) / 180, (turn.tilt * Math.PI) / 180];
  return [
    [Math.sin(a), -Math.cos(a), 0],
    [Math.cos(a) * Math.sin(b), Math.sin(a) * Math.sin(b), Math.cos(b)],
  ];
}

/** What belongs to the frame: pickup points, whatever was read, and points of no corner. */
export const seenOf = (view: JigView): Point[] =>
  view.points.filter(
    (p) =>
      p.place ||
      view.pickups.some((q) => q.point === p.name) ||
      view.readings.some((r) => r.points.includes(p.name)) ||
      !/^(LF|RF|LR|RR|front|rear)\./.test(p.name),
  );

/** The axis of every arm, from its front pickup to its rear one. */
export const shapeOf = (seen: Point[]): (readonly [Point, Point])[] =>
  seen.flatMap((p) => {
    const axis = p.name.endsWith('.front') ? p.name.replace(/\.front$/, '.rear') : '';
    return seen.filter((q) => axis && q.name === axis).map((q) => [p, q] as const);
  });

const STATION = 260; // mm along the car between two bays of a frame
const LEVEL = 70; // mm between an upper and a lower tube

/** A frame as one recognises it: tubes through the middles of what lies together on a side, along it, up and across. Only drawn: nothing is measured of it. */
export function tubesOf(seen: Point[]): (readonly [P3, P3])[] {
  const sided = seen.filter((p) => Math.abs(p.planned[1]!) > 20).sort((a, b) => b.planned[0]! - a.planned[0]!);
  const bays: Point[][] = [];
  for (const p of sided) {
    const last = bays.at(-1);
    if (last && last[0]!.planned[0]! - p.planned[0]! < STATION) last.push(p);
    else bays.push([p]);
  }
  const middle = (rows: Point[]): P3 | null =>
    rows.length
      ? ([0, 1, 2].map((k) => rows.reduce((sum, p) => sum + p.planned[k]!, 0) / rows.length) as unknown as P3)
      : null;
  const corners = bays.map((bay) => {
    const heights = bay.map((p) => p.planned[2]!);
    const half = (Math.min(...heights) + Math.max(...heights)) / 2;
    const tall = Math.max(...heights) - Math.min(...heights) > LEVEL;
    return [1, -1].map((side) => {
      const own = bay.filter((p) => p.planned[1]! * side > 0);
      return tall
        ? [middle(own.filter((p) => p.planned[2]! < half)), middle(own.filter((p) => p.planned[2]! >= half))]
        : [middle(own), null];
    });
  });
  const tubes: (readonly [P3, P3])[] = [];
  const tube = (a: P3 | null | undefined, b: P3 | null | undefined) => a && b && tubes.push([a, b]);
  corners.forEach((bay, i) => {
    const [left, right] = bay;
    for (const level of [0, 1]) {
      tube(left![level], right![level]);
      for (const side of [0, 1]) tube(bay[side]![level], corners[i + 1]?.[side]![level] ?? corners[i + 1]?.[side]![0]);
    }
    for (const side of [0, 1]) tube(bay[side]![0], bay[side]![1]);
  });
  return tubes;
}

export class FrameView {
  readonly #axes: [P3, P3];
  readonly scale: number; // pixels per mm
  readonly #middle: readonly [number, number];

  constructor(
    readonly side: Side,
    turn: Turn,
    readonly width: number,
    readonly height: number,
    seen: Point[],
  ) {
    this.#axes = axesOf(side, turn);
    const all = seen.map((p) => this.#flat(p.planned));
    const [us, vs] = [all.map((a) => a[0]), all.map((a) => a[1])];
    const [u0, u1, v0, v1] = [Math.min(...us), Math.max(...us), Math.min(...vs), Math.max(...vs)];
    this.scale = Math.min((width - 90) / Math.max(u1 - u0, 1), (height - 170) / Math.max(v1 - v0, 1));
    this.#middle = [(u0 + u1) / 2, (v0 + v1) / 2];
  }

  #flat(p: P3): readonly [number, number] {
    return [dot(p, this.#axes[0]), dot(p, this.#axes[1])];
  }

  at(p: P3): Spot {
    const [u, v] = this.#flat(p);
    return {
      x: this.width / 2 + (u - this.#middle[0]) * this.scale,
      y: this.height / 2 + 30 - (v - this.#middle[1]) * this.scale,
    };
  }

  /** Where a point goes that is moved by so much, magnified. */
  moved(p: P3, by: P3): Spot {
    return this.at([p[0] + by[0] * MAGNIFIED, p[1] + by[1] * MAGNIFIED, p[2] + by[2] * MAGNIFIED]);
  }

  /** A line between two places. */
  between(a: P3, b: P3): string {
    const [p, q] = [this.at(a), this.at(b)];
    return `M${p.x} ${p.y}L${q.x} ${q.y}`;
  }

  /** A line between two points as planned; nothing where one is not known. */
  line(a: Point | undefined, b: Point | undefined): string {
    if (!a || !b) return '';
    const [p, q] = [this.at(a.planned), this.at(b.planned)];
    return `M${p.x} ${p.y}L${q.x} ${q.y}`;
  }
}

export const offOf = (p: Point): P3 => p.place!.map((v, i) => v - p.planned[i]!) as unknown as P3;

/** An arrow from one spot to another, with its head. */
export function arrow(a: Spot, b: Spot): string {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const size = Math.hypot(dx, dy) || 1;
  const [ux, uy] = [(dx / size) * 9, (dy / size) * 9];
  const [nx, ny] = [(dy / size) * 4, (dx / size) * 4];
  return `M${a.x} ${a.y}L${b.x} ${b.y}M${b.x - ux - nx} ${b.y - uy + ny}L${b.x} ${b.y}L${b.x - ux + nx} ${b.y - uy - ny}`;
}
