// What hangs on a linkage while it is given: springs, rocker, bar, shaft, torsion bars and joints as they begin.
import type { Linkage } from '$lib/api/client';
import type { Draft, End } from './draft';

export type Spring = NonNullable<Linkage['springs']>[number];
export type Torsion = NonNullable<Linkage['torsions']>[number];
export type Joint = NonNullable<Linkage['joints']>[number];

/** Names of the points of an end, without their corner. */
export const pointsOf = (points: Draft['points'], end: End): string[] => [
  ...new Set(
    Object.keys(points)
      .filter((n) => (end === 'front' ? /^(LF|RF|front)\./ : /^(LR|RR|rear)\./).test(n))
      .map((n) => n.split('.').slice(1).join('.')),
  ),
];

export const newSpring = (name: string): Spring => ({
  name,
  ends: [
    { point: '', on: 'car' },
    { point: '', on: 'upright' },
  ],
  rate: null,
  free: null,
  closed: null,
  open: null,
  solid: null,
  helper: null,
  seat: 0,
});
export const newRocker = () => ({ first: '', second: '', push: '', rod: { point: '', on: 'upright' } });
export const newBar = () => ({ first: '', second: '', arm: '', link: { point: '', on: 'upright' } });
export const newShaft = () => ({ inner: '', outer: '', pushed: null, pulled: null });
export const newTorsion = (name: string): Torsion => ({
  name,
  arm: '',
  rate: null,
  inner: null,
  outer: null,
  fine_deg: 0,
});
export const newJoint = (member: string): Joint => ({ member, at: 'outer', limit_deg: 25, stud: null });
export const newLinkage = (layout: Linkage['layout'], end: End, tyre: number | null): Linkage => ({
  layout,
  loaded_radius: (tyre ?? 600) / 2,
  steering: end === 'front' ? 'rack' : 'none',
  mirrored: true,
  toe_deg: 0,
  camber_deg: 0,
  springs: [],
  torsions: [],
  rocker: null,
  bar: null,
  shaft: null,
  joints: [],
  lengths: {},
});

/** Set one of three figures; all three nothing is none. */
export function setOfThree(
  now: readonly number[] | null | undefined,
  at: number,
  value: number | null,
): [number, number, number] | null {
  const next = [...(now ?? [0, 0, 0])] as [number, number, number];
  next[at] = value ?? 0;
  return next.some((v) => v !== 0) ? next : null;
}
