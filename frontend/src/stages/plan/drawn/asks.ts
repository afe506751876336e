// What a plan on the drawing asks for, figure after figure in walking order: where it goes in the draft, how it is read, and what it may take over.
import { CORNER_KINDS, cornerName, kindsAt, MARK_KINDS, WHOLE_MARKS, wholeName } from '$lib/kinds';
import { CORNER_WORDS, CORNERS } from '$lib/marks';
import { type Draft, type End, markKind, spansOf, wholeLabel } from '../draft';
import type { AsTyped } from '$parts/form/figure-text.svelte';
import type { Corner, Spans } from '$lib/api/client';
import { DRAWN, PLAN } from '../texts';

export type Chapter = keyof typeof DRAWN.chapters;
export interface PlanAsk {
  path: string;
  chapter: Chapter;
  title: string;
  short: string; // as it is written on the drawing
  how: string;
  kind: AsTyped;
  spans: Spans;
  value: number | null;
  /** Taken over by Enter alone, where nothing is typed. */
  like: { value: number; from: string } | null;
  optional: boolean;
  put: (value: number | null, typed: string) => void;
}

const PAIRS: readonly (readonly [End, readonly [Corner, Corner]])[] = [
  ['front', ['LF', 'RF']],
  ['rear', ['LR', 'RR']],
];

function dimensions(draft: Draft): PlanAsk[] {
  const own = (path: string, title: string, how: string, value: number | null, put: PlanAsk['put']): PlanAsk => ({
    path, title, how, value, put, short: '', chapter: 'dimensions', kind: 'length', spans: {}, like: null, optional: false,
  }); // prettier-ignore
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
function aims(draft: Draft, apart: ReadonlySet<string>): PlanAsk[] {
  const of = (marks: string[], name: string, short = name): PlanAsk[] =>
    (['aim', 'tolerance'] as const).map((part) => ({
      path: `aims.${marks.join('+')}.${part}`,
      chapter: 'aims',
      title: part === 'aim' ? name : DRAWN.tolerance(name),
      short: part === 'aim' ? short : '±',
      how: part === 'aim' ? DRAWN.aimHow(MARK_KINDS[marks[0]!.split('.')[1]!]!) : DRAWN.toleranceHow,
      kind: markKind(marks[0]!),
      spans: spansOf(draft, marks[0]!),
      value: draft.aims[marks[0]!]![part],
      like: null,
      optional: true,
      put: (value, typed) => {
        for (const mark of marks) {
          const aim = draft.aims[mark]!;
          if (part === 'aim') Object.assign(aim, { aim: value, typed: /toe$/.test(mark) ? typed : '' });
          else aim.tolerance = value === null ? null : Math.abs(value);
        }
      },
    }));
  const same = (a: string, b: string) =>
    draft.aims[a]!.aim === draft.aims[b]!.aim && draft.aims[a]!.tolerance === draft.aims[b]!.tolerance;
  const seldom = (kind: string) => MARK_KINDS[kind]!.only_aimed;
  const kinds = [...CORNER_KINDS].sort((a, b) => Number(seldom(a)) - Number(seldom(b)));
  return [
    ...kinds.flatMap((kind) =>
      PAIRS.flatMap(([end, pair]) => {
        const marks = pair.filter((c) => kindsAt(c).includes(kind)).map((c) => `${c}.${kind}`);
        if (!marks.length) return [];
        if (marks.length === 2 && same(marks[0]!, marks[1]!) && !apart.has(`${end}.${kind}`))
          return of(marks, DRAWN.bothSides(PLAN.axles[end], cornerName(kind, 'label').toLowerCase()), cornerName(kind));
        return marks.flatMap((mark, i) =>
          of([mark], `${CORNER_WORDS[pair[i]!]} ${cornerName(kind, 'label').toLowerCase()}`, cornerName(kind)),
        );
      }),
    ),
    ...WHOLE_MARKS.flatMap((mark) => of([mark], wholeLabel(mark), wholeName(mark))),
  ];
}

function heights(draft: Draft): PlanAsk[] {
  const left = (c: Corner) => (c === 'RF' ? 'LF' : c === 'RR' ? 'LR' : null);
  return CORNERS.flatMap((c) =>
    (['station', 'offset'] as const).map((part): PlanAsk => {
      const twin = left(c);
      const there = twin ? draft.heights[twin][part] : null;
      return {
        path: `heights.${c}.${part}`,
        chapter: 'heights',
        title: DRAWN.heightAt(CORNER_WORDS[c], part),
        short: DRAWN.shortOf[part],
        how: DRAWN.heightHow[part],
        kind: 'length',
        spans: {},
        value: draft.heights[c].name ? draft.heights[c][part] : null,
        like: there === null ? null : { value: part === 'offset' ? -there : there, from: DRAWN.asOnTheLeft },
        optional: true,
        put: (value) => {
          draft.heights[c].name ||= DRAWN.place;
          draft.heights[c][part] = value;
        },
      };
    }),
  );
}

export const asksOf = (draft: Draft, apart: ReadonlySet<string>): PlanAsk[] => [
  ...dimensions(draft),
  ...aims(draft, apart),
  ...heights(draft),
];

/** What a plan can answer once some figures are given: each with the paths it wants. */
export function answersOf(draft: Draft, asks: PlanAsk[]): { says: string; left: string[] }[] {
  const missing = (ask: PlanAsk | undefined) => (ask && ask.value === null ? [ask.title] : []);
  const at = (path: string) => asks.find((a) => a.path === path);
  const dims = asks.filter((a) => a.chapter === 'dimensions').flatMap(missing);
  const anyAim = (kind: string) =>
    CORNERS.some((c) => draft.aims[`${c}.${kind}`]?.aim !== null && draft.aims[`${c}.${kind}`]?.tolerance !== null)
      ? []
      : [DRAWN.anAim(cornerName(kind, 'label').toLowerCase())];
  const held = (['front', 'rear'] as const).flatMap((e) =>
    draft.linkages[e] ? [] : [DRAWN.points(PLAN.axles[e].toLowerCase())],
  );
  const rim = ['wheelbase', 'front.track', 'rear.track'].flatMap((p) => missing(at(p)));
  return [
    { says: DRAWN.answers.toe, left: [...dims, ...anyAim('toe')] },
    { says: DRAWN.answers.camber, left: [...dims, ...anyAim('camber')] },
    { says: DRAWN.answers.height, left: [...rim, ...anyAim('height')] },
    { says: DRAWN.answers.travel, left: held },
    { says: DRAWN.answers.turns, left: [...held, ...(draft.adjusters.length ? [] : [DRAWN.anAdjuster])] },
  ];
}
