// What hangs on a linkage while it is given: springs, rocker, bar, shaft, torsion bars and joints as they begin.
import type { Linkage } from '$lib/api/client';
import type { Draft, End } from './draft';

export type Spring = NonNullable<Linkage['springs']>[number];
/** Figures of a spring with its damper, in the order in which they are asked. */
export const COIL = ['rate', 'free', 'solid', 'seat', 'closed', 'open', 'to_tyre'] as const;
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

/** Names of the points that springs, rocker, bar and shaft of a linkage are fastened at. */
export const namedBy = ({ springs = [], rocker, bar, shaft }: Linkage): string[] =>
  [
    ...(rocker ? [rocker.rod.point, rocker.first, rocker.second, rocker.push] : []),
    ...springs.flatMap((s) => s.ends.map((e) => e.point)),
    ...(bar ? [bar.first, bar.second, bar.arm, bar.link.point] : []),
    ...(shaft ? [shaft.inner, shaft.outer] : []),
  ].filter(Boolean);

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
  to_tyre: null,
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
/** A linkage of which only the layout is known: no figure of it is guessed. */
export const newLinkage = (layout: Linkage['layout'], end: End): Linkage => ({
  layout,
  // Wanted, and said to be wanted when the plan is kept; as drawn it stands straight until somebody says otherwise.
  ...({ loaded_radius: null, toe_deg: null, camber_deg: null } as unknown as Pick<
    Linkage,
    'loaded_radius' | 'toe_deg' | 'camber_deg'
  >),
  steering: end === 'front' ? 'rack' : 'none',
  mirrored: true,
  springs: [],
  torsions: [],
  rocker: null,
  bar: null,
  shaft: null,
  joints: [],
  lengths: {},
});

const coil = (name: string, top: string, foot: string, on: string): Spring => ({
  ...newSpring(name),
  ends: [
    { point: top, on: 'car' },
    { point: foot, on },
  ],
});
/** What else may hang on a linkage, begun whole: its points are then asked for by name. */
export const BEGIN: Readonly<Record<'coil' | 'rocker' | 'bar' | 'shaft', (l: Linkage, axle: boolean) => void>> = {
  coil: (l, axle) => {
    l.springs = axle
      ? [
          coil('left coil', 'coil.left.body', 'coil.left.axle', 'upright'),
          coil('right coil', 'coil.right.body', 'coil.right.axle', 'upright'),
        ]
      : [coil('coil', 'coil.top', 'coil.foot', 'upright')];
  },
  rocker: (l) => {
    const on = l.layout === 'double wishbone' ? 'lower' : 'upright';
    l.rocker = {
      first: 'rocker.first',
      second: 'rocker.second',
      push: 'rocker.push',
      rod: { point: 'push.outer', on },
    };
    l.springs = [
      {
        ...newSpring('damper'),
        ends: [
          { point: 'rocker.damper', on: 'rocker' },
          { point: 'damper.inner', on: 'car' },
        ],
      },
    ];
  },
  bar: (l) => {
    const on = l.layout === 'double wishbone' ? 'lower' : 'upright';
    l.bar = { first: 'bar.first', second: 'bar.second', arm: 'bar.arm', link: { point: 'bar.link', on } };
  },
  shaft: (l) => (l.shaft = { ...newShaft(), inner: 'shaft.inner', outer: 'shaft.outer' }),
};

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
