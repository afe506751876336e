// The corners of a frame of which nothing is known: asked for at the empty jig.
import type { Draft, Figure } from '../draft';
import { BAY } from '../here/here.svelte';
import { DRAWN } from '../texts';
import { ask, type Place, type PlanAsk } from './ask';
import { FRAME, toleranceAsk } from './asks-weights';

const RAILS = (['front', 'rear'] as const).map((end) =>
  (['left', 'right'] as const).map((side) => `${FRAME}rail.${side}.${end}`),
);
/** How long a frame is that has no points yet, how wide, and how square it is to be: its four corners. */
export function bay(draft: Draft): PlanAsk[] {
  const points = { ...draft.points }; // what is looked for and is not there yet would stand before what is given first
  const at = (name: string): Place => points[name] ?? [null, null, null];
  const apart = ([a, b]: string[], axis: 0 | 1): Figure => {
    const [one, other] = [at(a!)[axis], at(b!)[axis]];
    return one === null || other === null ? null : one - other;
  };
  const [front, rear] = RAILS as [string[], string[]];
  const put = (names: string[], axis: 0 | 1, values: [number, number] | [null, null]) =>
    names.forEach((name, i) => {
      const next: Place = [...at(name)];
      [next[axis], next[2]] = [values[i]!, next[2] ?? 0];
      draft.points[name] = next;
    });
  const halves = (v: Figure): [number, number] | [null, null] => (v === null ? [null, null] : [v / 2, -v / 2]);
  const own = {
    chapter: 'frame',
    group: BAY,
    saved: () => {
      const was = { ...draft.points };
      return () => void (draft.points = was);
    },
  } as const;
  const wide = apart(front, 1);
  return [
    ask({
      ...own,
      path: `${BAY}.length`,
      title: DRAWN.bay.length,
      short: DRAWN.bay.lengthShort,
      how: DRAWN.bay.how,
      value: apart([front[0]!, rear[0]!], 0),
      put: (v) => {
        put(front, 0, v === null ? [null, null] : [0, 0]);
        put(rear, 0, v === null ? [null, null] : [-v, -v]);
      },
    }),
    ask({
      ...own,
      path: `${BAY}.front`,
      title: DRAWN.bay.front,
      short: DRAWN.bay.frontShort,
      how: DRAWN.bay.how,
      value: wide,
      put: (v) => put(front, 1, halves(v)),
    }),
    ask({
      ...own,
      path: `${BAY}.rear`,
      title: DRAWN.bay.rear,
      short: DRAWN.bay.rearShort,
      how: DRAWN.bay.how,
      value: apart(rear, 1),
      like: wide === null ? null : { value: wide, from: DRAWN.bay.alike },
      put: (v) => put(rear, 1, halves(v)),
    }),
    toleranceAsk(draft, {
      path: `${BAY}.tolerance`,
      group: BAY,
      title: DRAWN.bay.tolerance,
      how: DRAWN.bay.toleranceHow,
    }),
  ];
}
