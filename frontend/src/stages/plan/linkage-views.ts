// The points of one end laid on the drawing: where each is, what joins them, and the two views that share a scale.
import type { Linkage } from '$lib/api/client';
import { mirrorName } from '$lib/mirror';
import type { Draft } from './draft';

export const W = 600;
export const H = 340;
export const RADIUS = 300; // mm; a wheel is drawn with it until its loaded radius is given
export const WIDE = 190; // mm; a tyre as drawn, its width is in no plan
export type Spot = { name: string; x: number; y: number; z: number; guessed?: boolean };
export interface View {
  left: number;
  wide: number;
  title: string;
  scale: number;
  at: (s: Pick<Spot, 'x' | 'y' | 'z'>) => { u: number; v: number };
}
/** Points given whole, by name without their corner; of an axle the other side as a mirror where it is not given. */
export function spotsOf(points: Draft['points'], prefix: string, axle: boolean): Spot[] {
  const own = Object.entries(points)
    .filter(([n, p]) => n.startsWith(`${prefix}.`) && p.every((v) => v !== null))
    .map(([n, p]) => ({ name: n.slice(prefix.length + 1), x: p[0]!, y: p[1]!, z: p[2]! }));
  if (!axle) return own;
  const named = new Set(own.map((s) => s.name));
  const other = own.filter((s) => mirrorName(s.name) !== s.name && !named.has(mirrorName(s.name)));
  return [...own, ...other.map((s) => ({ ...s, name: mirrorName(s.name), y: -s.y }))];
}

/** What joins points besides the links: springs, rod and rocker, bar, halfshaft. */
export function partsOf({ springs = [], rocker, bar, shaft }: Linkage): (readonly [string, string])[] {
  return [
    ...springs.map((s) => [s.ends[0].point, s.ends[1].point] as const),
    ...(rocker
      ? [
          [rocker.rod.point, rocker.push] as const,
          [rocker.push, rocker.first] as const,
          ...springs.map((s) => [s.ends[0].point, rocker.first] as const),
        ]
      : []),
    ...(bar
      ? ([
          [bar.link.point, bar.arm],
          [bar.arm, bar.second],
          [bar.first, bar.second],
        ] as const)
      : []),
    ...(shaft ? ([[shaft.inner, shaft.outer]] as const) : []),
  ];
}

const range = (spots: Spot[], of: (s: Spot) => number) =>
  [Math.min(...spots.map(of)), Math.max(...spots.map(of))] as const;
export const isWheel = (spot: Spot): boolean => spot.name.endsWith('wheel');

/** From behind, left of the car on the left; from above, nose up. Both in a field of the size given, to one scale. */
export function viewsOf(spots: Spot[], radius: number, w = W, h = H): View[] {
  if (!spots.length) return [];
  const wheels = spots.filter(isWheel);
  const [y0, y1] = range(spots, (s) => s.y);
  const [low, z1] = range(spots, (s) => s.z);
  const z0 = Math.min(low, 0);
  const [near, far] = range(spots, (s) => s.x);
  const [x0, x1] = [
    Math.min(near, ...wheels.map((s) => s.x - radius)),
    Math.max(far, ...wheels.map((s) => s.x + radius)),
  ];
  const scale = Math.min((w / 2 - 50) / Math.max(y1 - y0 + WIDE, 1), (h - 70) / Math.max(z1 - z0, x1 - x0, 1));
  const place = (left: number, a: number, b: number, b0: number, b1: number) => ({
    u: left + w / 4 - (a - (y0 + y1) / 2) * scale,
    v: h / 2 + 8 - (b - (b0 + b1) / 2) * scale,
  });
  return [
    { left: 0, wide: w / 2, title: 'from behind', scale, at: (s) => place(0, s.y, s.z, z0, z1) },
    { left: w / 2, wide: w / 2, title: 'from above, nose up', scale, at: (s) => place(w / 2, s.y, s.x, x0, x1) },
  ];
}
