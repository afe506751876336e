// What every plan is asked: main dimensions, what is wanted of the car and of the build, and where heights are read.
import { CORNER_KINDS, cornerName, kindsAt, MARK_KINDS, WHOLE_MARKS, wholeName } from '$lib/kinds';
import { CORNER_WORDS, CORNERS } from '$lib/marks';
import { type AimDraft, type Draft, type End, markKind, spansOf, wholeLabel } from '../draft';
import type { Corner } from '$lib/api/client';
import { DRAWN, PLAN } from '../texts';
import { ask, placeAsks, type PlanAsk } from './ask';

const PAIRS: readonly (readonly [End, readonly [Corner, Corner]])[] = [
  ['front', ['LF', 'RF']],
  ['rear', ['LR', 'RR']],
];
const TWIN: Readonly<Partial<Record<Corner, Corner>>> = { RF: 'LF', RR: 'LR' };

export function dimensions(draft: Draft): PlanAsk[] {
  const own = (path: string, title: string, how: string, value: number | null, put: PlanAsk['put']): PlanAsk =>
    ask({ path, chapter: 'dimensions', group: 'dimensions', title, how, value, put });
  const axle = (end: End): PlanAsk[] =>
    (['track', 'rim_flange_diameter', 'tyre_diameter'] as const).map((part) => ({
      ...own(
        `${end}.${part}`,
        `${PLAN.axles[end]}: ${PLAN.axle[part].toLowerCase()}`,
        DRAWN.how[part],
        draft[end][part],
        (v) => (draft[end][part] = v),
      ),
      like: end === 'rear' && draft.front[part] !== null ? { value: draft.front[part], from: DRAWN.asInFront } : null,
    }));
  return [
    own('wheelbase', PLAN.wheelbase, DRAWN.how.wheelbase, draft.wheelbase, (v) => (draft.wheelbase = v)),
    ...axle('front'),
    ...axle('rear'),
  ];
}

/** Aims: once for both sides of an axle where they are alike, a corner at a time where they are not. */
export function aims(draft: Draft, chapter: 'aims' | 'build', apart: ReadonlySet<string>): PlanAsk[] {
  const table: Record<string, AimDraft> = chapter === 'aims' ? draft.aims : draft.buildAims;
  /** A rear axle may take over what the front has: always how far off still does, and while it is built the aim too. */
  const front = (mark: string, part: 'aim' | 'tolerance') => {
    const there = table[mark.replace(/^([LR])R/, '$1F')]?.[part] ?? null;
    return /^[LR]R\./.test(mark) && there !== null && (part === 'tolerance' || chapter === 'build')
      ? { value: there, from: DRAWN.asInFront }
      : null;
  };
  const of = (marks: string[], pair: string, name: string, short = name): PlanAsk[] =>
    (['aim', 'tolerance'] as const).map((part) =>
      ask({
        path: `${chapter}.${marks.join('+')}.${part}`,
        chapter,
        group: marks[0]!,
        title: DRAWN.titleOf[chapter](part === 'aim' ? name : DRAWN.tolerance(name)),
        short: part === 'aim' ? short : DRAWN.signs[table[marks[0]!]!.beyond],
        how: part === 'aim' ? DRAWN.aimHow(MARK_KINDS[marks[0]!.split('.')[1]!]!) : DRAWN.toleranceHow,
        kind: markKind(marks[0]!),
        spans: spansOf(draft, marks[0]!),
        value: table[marks[0]!]![part],
        like: part === 'aim' || table[marks[0]!]!.aim !== null ? front(marks[0]!, part) : null,
        optional: true,
        pair,
        put: (value, typed) => {
          for (const mark of marks) {
            const aim = table[mark]!;
            if (part === 'aim') Object.assign(aim, { aim: value, typed: /toe$/.test(mark) ? typed : '' });
            else aim.tolerance = value === null ? null : Math.abs(value);
          }
        },
      }),
    );
  const same = (a: string, b: string) => table[a]!.aim === table[b]!.aim && table[a]!.tolerance === table[b]!.tolerance;
  const seldom = (kind: string) => MARK_KINDS[kind]!.only_aimed;
  const kinds = [...CORNER_KINDS].sort((a, b) => Number(seldom(a)) - Number(seldom(b)));
  return [
    ...kinds.flatMap((kind) =>
      PAIRS.flatMap(([end, pair]) => {
        const marks = pair.filter((c) => kindsAt(c).includes(kind)).map((c) => `${c}.${kind}`);
        if (!marks.length) return [];
        const label = cornerName(kind, 'label').toLowerCase();
        const key = marks.length === 2 ? `${chapter}.${end}.${kind}` : '';
        if (marks.length === 2 && same(marks[0]!, marks[1]!) && !apart.has(key))
          return of(marks, key, DRAWN.bothSides(PLAN.axles[end], label), cornerName(kind));
        return marks.flatMap((mark, i) => of([mark], key, `${CORNER_WORDS[pair[i]!]} ${label}`, cornerName(kind)));
      }),
    ),
    ...WHOLE_MARKS.flatMap((mark) => of([mark], '', wholeLabel(mark), wholeName(mark))),
  ];
}

export function heights(draft: Draft): PlanAsk[] {
  return CORNERS.flatMap((c) => {
    const [own, left] = [draft.heights[c], TWIN[c]];
    const model = left ? draft.heights[left] : c === 'LR' ? draft.heights.LF : null;
    const from = left ? DRAWN.asOnTheLeft : DRAWN.asInFront;
    const group = `heights.${c}`;
    return [
      ...placeAsks({
        path: `heights.${c}`,
        chapter: 'heights',
        group,
        name: DRAWN.heightAt(CORNER_WORDS[c]),
        how: DRAWN.heightHow,
        at: own.name ? [own.station, own.offset, own.height] : [null, null, null],
        set: ([station, offset, height]) => {
          own.name ||= DRAWN.place;
          Object.assign(own, { station, offset, height });
        },
        like: (axis) => {
          if (!model?.name || (!left && axis === 0)) return null;
          const there = [model.station, model.offset, model.height][axis]!;
          return there === null ? null : { value: axis === 1 && left ? -there : there, from };
        },
        optional: true,
      }),
      ask({
        path: `heights.${c}.name`,
        chapter: 'heights',
        group,
        title: DRAWN.heightName(CORNER_WORDS[c]),
        short: DRAWN.called,
        how: DRAWN.heightNameHow,
        kind: 'words',
        text: own.name === DRAWN.place ? '' : own.name,
        like: model?.name && model.name !== own.name ? { value: 0, from, text: model.name } : null,
        optional: true,
        put: (_, typed) => (own.name = typed || (own.station !== null ? DRAWN.place : '')),
      }),
    ];
  });
}
