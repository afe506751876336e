// What an adjuster moves in the linkage, as its field says it: a member made longer, or a point moved one way.
import type { Corner } from '$lib/api/client';
import { isLeft } from '$lib/marks';
import type { AdjusterDraft, EndDraft, FigurePart } from './draft';
import { PLAN } from './texts';

type Way = [number, number, number];
const WAYS = { forward: [1, 0, 0], aft: [-1, 0, 0], up: [0, 0, 1], down: [0, 0, -1] } as Record<string, Way>;

/** Direction of a way by name, in the axes of the car; in- and outboard are of the side. */
export const way = (name: string, corner: Corner): Way =>
  WAYS[name] ?? [0, (name === 'outboard' ? 1 : -1) * (isLeft(corner) ? 1 : -1), 0];

export const wayOf = (a: AdjusterDraft): string =>
  Object.keys(PLAN.directions).find((n) => way(n, a.corner).every((v, i) => v === a.moves?.direction?.[i])) ??
  'outboard';

/** What is chosen in its list: ``=`` a member made longer, ``.`` a point moved, nothing. */
export const chosenMove = (a: AdjusterDraft): string => (a.moves ? (a.moves.direction ? '.' : '=') + a.moves.name : '');

export function chooseMove(a: AdjusterDraft, value: string): void {
  const [kind, name] = [value.slice(0, 1), value.slice(1)];
  const direction = kind === '.' ? (a.moves?.direction ?? way('outboard', a.corner)) : null;
  a.moves = value ? { name, direction } : null;
}

/** A thread named whole gives its pitch and hand too. */
export function nameThread(
  end: EndDraft,
  { pitch, hand }: { pitch: number | null; hand: 'left' | 'right' | null },
): void {
  if (pitch !== null) end.pitch_mm_per_turn = pitch;
  if (hand !== null) end.hand = hand;
}

/** As what the figures of an adjuster are typed, part by part, in the order in which they are asked. */
export const FIGURES = {
  shims: { thickness: 'length', fitted: 'number', most: 'number' },
  perch: { pitch_mm_per_turn: 'pitch', room_up: 'length', room_down: 'length', spring_per_wheel: 'number' },
  screw: {
    pitch_mm_per_turn: 'pitch',
    lever: 'length',
    room_up: 'length',
    room_down: 'length',
    degrees_per_wheel: 'angle',
  },
  splines: { teeth: 'number', up: 'number', down: 'number', degrees_per_wheel: 'angle' },
  slide: { mark: 'length', at: 'length', most: 'length' },
  cam: { throw: 'length', mark_deg: 'angle', most_deg: 'angle', at_deg: 'angle' },
} as const;
export const PART_WORDS: Readonly<Record<FigurePart, Readonly<Record<string, string>>>> = {
  shims: PLAN.stack,
  perch: PLAN.perch,
  screw: PLAN.screw,
  splines: PLAN.splines,
  slide: PLAN.slide,
  cam: PLAN.cam,
};
