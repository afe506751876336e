// The chassis as an outline: points fixed to it, laid on the floor by an attitude, and the hull round them as seen from one way.
import type { Plan, StanceView } from '$lib/api/client';

export type Attitude = NonNullable<StanceView['wanted']>;
export type Point = [number, number, number];
export type Flat = [number, number];

const FIXED = /(\.(front|rear|inner|top|body)$|^frame\.|rocker\.(first|second))/;
const cross = (a: Point, b: Point): Point => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const dot = (a: Point, b: Point) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/** Return where a point of the chassis is over a level floor: forward, left, up. */
export function laid(a: Attitude, p: Point): Point {
  const [pitch, roll] = [(a.pitch_deg * Math.PI) / 180, (a.roll_deg * Math.PI) / 180];
  const up: Point = [-Math.sin(pitch), Math.sin(roll) * Math.cos(pitch), Math.cos(roll) * Math.cos(pitch)];
  const ahead: Point = [1 - up[0] * up[0], -up[0] * up[1], -up[0] * up[2]];
  const size = Math.hypot(...ahead);
  const forward: Point = [ahead[0] / size, ahead[1] / size, ahead[2] / size];
  return [dot(forward, p), dot(cross(up, forward), p), dot(up, p) + a.height];
}

/** Return the points of a plan that are fixed to its chassis, both sides. */
export function fixed(plan: Plan): Point[] {
  const own = Object.entries(plan.points)
    .filter(([name]) => FIXED.test(name))
    .map(([, p]) => p as Point);
  const named = [...(plan.footing.features ?? []), ...(plan.footing.low ?? []), ...(plan.footing.stands ?? [])].map(
    (f): Point => [f.station, f.offset, f.height],
  );
  const heights = plan.heights.map((h): Point => [
    h.station,
    h.offset,
    h.height ?? plan.aims.find((a) => a.mark === `${h.corner}.height`)?.aim ?? 120,
  ]);
  return [...own, ...own.map(([x, y, z]): Point => [x, -y, z]), ...named, ...heights];
}

/** Return the convex hull of points in a plane, round (monotone chain). */
export function hull(points: Flat[]): Flat[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const turn = (o: Flat, a: Flat, b: Flat) => (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0]);
  const half = (rows: Flat[]) => {
    const kept: Flat[] = [];
    for (const p of rows) {
      while (kept.length > 1 && turn(kept.at(-2)!, kept.at(-1)!, p) <= 0) kept.pop();
      kept.push(p);
    }
    return kept.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.reverse())];
}

export const path = (points: Flat[]) =>
  points.map(([x, y], i) => `${i ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`).join('') + 'Z';
