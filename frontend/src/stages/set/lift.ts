// The list of a lift as it is shown and worked off: what waits to be handed over counts as done.
import type { CarView, Corner } from '$lib/api/client';
import type { Told } from '$parts/tape/round.svelte';

type Stop = NonNullable<CarView['lift']>['stops'][number];

/** One line of the list. */
export interface LiftLine {
  adjuster: string;
  name: string;
  size: string;
  way: string;
  done: boolean;
  stuck: boolean;
}

const lineOf = (corner: Corner, turn: Stop['turns'][number], pending: ReadonlySet<string>): LiftLine => ({
  adjuster: turn.adjuster,
  name: turn.name,
  size: turn.size,
  way: turn.way,
  done: turn.left === 0 || pending.has(`${corner}/turn/${turn.adjuster}`),
  stuck: turn.stuck,
});

/** The stops with their lines. */
export const linesOf = (lift: NonNullable<CarView['lift']>, pending: ReadonlySet<string>) =>
  lift.stops.map(({ corner, turns }) => ({ corner, lines: turns.map((t) => lineOf(corner, t, pending)) }));

/** What is told to be turned, as the tape takes it: what is left of the whole list, in its order. */
export const toldOf = (lift: NonNullable<CarView['lift']>): Told[] =>
  lift.stops.flatMap(({ corner, turns }) =>
    turns.map(({ adjuster, name, left, say, caution, then, seen, clockwise }) => ({
      adjuster,
      name,
      amount: left,
      say,
      caution,
      corner,
      then,
      seen,
      clockwise,
    })),
  );
