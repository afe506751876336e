// One figure that the tape asks for: where it goes in the draft, how it is read, what it may take over, and where it stands on the drawing.
import type { AsTyped } from '$parts/form/figure-text.svelte';
import type { Spans } from '$lib/api/client';
import type { Figure } from '../draft';
import { DRAWN } from '../texts';

export type Chapter = keyof typeof DRAWN.chapters;
/** What was read besides the figure itself: of a thread its pitch and hand, of a place the other two figures. */
export interface Also {
  pitch: number | null;
  hand: 'left' | 'right' | null;
  more: readonly number[];
}
export const ALONE: Also = { pitch: null, hand: null, more: [] };
export interface Like {
  value: number;
  from: string;
  also?: Also;
  text?: string;
}
export interface PlanAsk {
  path: string;
  chapter: Chapter;
  group: string; // what is asked for together, and shown together on the drawing
  title: string;
  short: string; // as it is written on the drawing
  how: string;
  kind: AsTyped | 'words';
  spans: Spans;
  value: Figure;
  more: readonly number[]; // of a list: what comes after the first
  text: string; // of words: what stands there
  /** Taken over by Enter alone, where nothing is typed. */
  like: Like | null;
  optional: boolean;
  /** Both sides are given at once under this name, until they are wanted unlike. */
  pair: string;
  /** The same again on the other side. */
  twin: (() => void) | null;
  /** Station and offset of what is asked for, where it is a place. */
  spot: { x: Figure; y: Figure; name: string } | null;
  put: (value: Figure, typed: string, also: Also) => void;
  /** What brings back how it was. */
  saved: (() => () => void) | null;
}
const PLAIN = {
  short: '',
  how: '',
  kind: 'length',
  spans: {},
  value: null,
  more: [],
  text: '',
  like: null,
  optional: false,
  pair: '',
  twin: null,
  spot: null,
  saved: null,
} as const;
export type Own = Pick<PlanAsk, 'path' | 'chapter' | 'group' | 'title' | 'put'> & Partial<PlanAsk>;
export const ask = (own: Own): PlanAsk => ({ ...PLAIN, ...own });

/** A list of lengths, given in one line. */
export const listAsk = (
  own: Omit<Own, 'put'>,
  values: readonly number[],
  set: (next: number[]) => void,
  like: { values: readonly number[]; from: string } | null = null,
): PlanAsk => {
  const [first, ...more] = like?.values ?? [];
  return ask({
    ...own,
    kind: 'lengths',
    value: values[0] ?? null,
    more: values.slice(1),
    like: first === undefined ? null : { value: first, from: like!.from, also: { ...ALONE, more } },
    optional: true,
    put: (value, _, also) => set(value === null ? [] : [value, ...also.more]),
    saved: () => {
      const was = [...values];
      return () => set(was);
    },
  });
};

export type Place = [Figure, Figure, Figure];
export interface PlaceOwn {
  path: string;
  chapter: Chapter;
  group: string;
  name: string;
  how?: readonly string[];
  at: Place;
  set: (place: Place) => void;
  like: (axis: 0 | 1 | 2) => Like | null;
  optional?: boolean;
  pair?: string;
  twin?: (() => void) | null;
}
const PARTS = ['station', 'offset', 'height'] as const;

/** Station, offset and height of one place; all three may be typed in one line. */
export const placeAsks = (own: PlaceOwn): PlanAsk[] =>
  ([0, 1, 2] as const).map((axis) =>
    ask({
      path: `${own.path}.${PARTS[axis]}`,
      chapter: own.chapter,
      group: own.group,
      title: DRAWN.placeTitle(own.name, axis),
      short: DRAWN.placeShort[axis]!,
      how: own.how?.[axis] ?? DRAWN.placeHow[axis]!,
      kind: 'place',
      value: own.at[axis],
      like: own.like(axis),
      optional: own.optional ?? false,
      pair: own.pair ?? '',
      twin: own.twin ?? null,
      spot: { x: own.at[0], y: own.at[1], name: own.name },
      put: (value, _, { more }) => {
        if (value !== null && more.length === 2) return own.set([value, more[0]!, more[1]!]);
        const next = [...own.at] as Place;
        next[axis] = value;
        own.set(next);
      },
      saved: () => {
        const was = [...own.at] as Place;
        return () => own.set(was);
      },
    }),
  );
