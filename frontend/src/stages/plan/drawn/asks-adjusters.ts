// What each adjuster is asked: the same on both sides is asked once.
import type { Layout } from '$lib/api/client';
import { isFront } from '$lib/marks';
import { mirrorName } from '$lib/mirror';
import { FIGURES, nameThread, PART_WORDS } from '../adjuster-moves';
import {
  type AdjusterDraft,
  type AdjusterKind,
  type Draft,
  type EndDraft,
  FIGURE_PARTS,
  type FigurePart,
  kindOf,
  newAdjuster,
} from '../draft';
import { DRAWN, PLAN } from '../texts';
import { ALONE, ask, type Like, listAsk, type PlanAsk } from './ask';

const endOf = (a: AdjusterDraft) => (isFront(a.corner) ? 'front' : 'rear');
const figures = (a: AdjusterDraft) => JSON.stringify([a.ends, a.lock, ...FIGURE_PARTS.map((part) => a[part])]);

export interface Pair {
  key: string;
  name: string;
  rows: AdjusterDraft[];
}

/** Adjusters as they are given: left and right of one name and kind together while their figures are alike. */
export function pairsOf(adjusters: AdjusterDraft[], apart: ReadonlySet<string>): Pair[] {
  const pairs: Pair[] = [];
  for (const a of adjusters) {
    const key = `adjusters.${endOf(a)}.${a.name}.${kindOf(a)}`;
    const found = pairs.find((p) => p.key === key && p.rows.length === 1 && p.rows[0]!.corner !== a.corner);
    if (found && !apart.has(key) && figures(found.rows[0]!) === figures(a)) found.rows.push(a);
    else pairs.push({ key, name: a.name, rows: [a] });
  }
  return pairs;
}

/** What a pair is called where it stands on the car. */
export const calledOf = ({ rows, name }: Pair): string =>
  DRAWN.adjusterOf(PLAN.axles[endOf(rows[0]!)], name || PLAN.kind[kindOf(rows[0]!)], rows.length > 1);

export const adjusters = (draft: Draft, layouts: readonly Layout[], apart: ReadonlySet<string>): PlanAsk[] => [
  ...given(draft, apart),
  ask({
    path: 'adjusters.more',
    chapter: 'adjusters',
    group: 'adjusters.more',
    title: DRAWN.another.adjusters,
    short: DRAWN.another.adjusters,
    how: DRAWN.anotherHow,
    kind: 'words',
    optional: true,
    put: (_, typed) => typed && draft.adjusters.push(...madeOf(typed, draft, layouts)),
    saved: () => {
      const was = [...draft.adjusters];
      return () => void (draft.adjusters = was);
    },
  }),
];

const KINDS: readonly (readonly [RegExp, AdjusterKind])[] = [
  [/shim/, 'shims'],
  [/perch|collar/, 'perch'],
  [/spline/, 'splines'],
  [/torsion|bar screw/, 'screw'],
  [/slide|slot|plate/, 'slide'],
  [/eccentric|cam\b/, 'cam'],
  [/rod end/, 'rod_end'],
];
/** What its name says of an adjuster that is new: its end, its kind, and the link that it lengthens; on both sides. */
function madeOf(typed: string, draft: Draft, layouts: readonly Layout[]): AdjusterDraft[] {
  const found = /^\s*(?:(front|rear)\s+)?(.+?)\s*$/i.exec(typed)!;
  const [end, name] = [found[1]?.toLowerCase() === 'rear' ? 'rear' : 'front', found[2]!] as const;
  const kind = KINDS.find(([word]) => word.test(name.toLowerCase()))?.[1] ?? 'tube';
  const layout = layouts.find((l) => l.name === draft.linkages[end]?.layout);
  const corners = end === 'front' ? (['LF', 'RF'] as const) : (['LR', 'RR'] as const);
  const member = layout?.members.find((m) => name.toLowerCase().includes(m));
  const links = kind === 'tube' || kind === 'rod_end';
  const made: AdjusterDraft = {
    ...newAdjuster(kind, []),
    name,
    corner: corners[0],
    moves: links && member ? { name: `${layout!.axle ? end : corners[0]}.${member}`, direction: null } : null,
  };
  const taken = draft.adjusters.map((a) => a.id);
  return corners.map((c) => atCorner(made, c, taken));
}

function given(draft: Draft, apart: ReadonlySet<string>): PlanAsk[] {
  const pairs = pairsOf(draft.adjusters, apart);
  return pairs.flatMap((each, n) => {
    const { key, rows } = each;
    const first = rows[0]!;
    const path = `adjusters.${first.id}`;
    const who = calledOf(each);
    const before = pairs
      .slice(0, n)
      .reverse()
      .map((p) => p.rows[0]!);
    const alike = (kinds: AdjusterKind[]) => before.find((a) => kinds.includes(kindOf(a)));
    const own = { chapter: 'adjusters', group: path, pair: rows.length > 1 || apart.has(key) ? key : '' } as const;

    const thread = (i: number): PlanAsk[] => {
      const of = (a: AdjusterDraft) => a.ends![i]!;
      const model: EndDraft | undefined = i ? first.ends![0] : alike(['tube', 'rod_end'])?.ends?.[0];
      const from = i ? DRAWN.asOtherEnd : DRAWN.asAdjuster(alike(['tube', 'rod_end'])?.name ?? '');
      const like = (part: keyof typeof PLAN.end): Like | null => {
        const value = model?.[part] ?? null;
        if (value === null) return null;
        return { value, from, also: { ...ALONE, pitch: part === 'diameter' ? model!.pitch_mm_per_turn : null } };
      };
      const end = first.ends!.length > 1 ? DRAWN.endOf(of(first).hand) : '';
      return (['diameter', 'engaged', 'exposed', 'pitch_mm_per_turn'] as const).map((part) =>
        ask({
          ...own,
          path: `${path}.ends.${i}.${part}`,
          title: `${who}: ${PLAN.end[part].toLowerCase()}${end}`,
          short: `${PLAN.end[part].toLowerCase()}${end}`,
          how: DRAWN.threadHow[part],
          kind: part === 'diameter' ? 'thread' : part === 'pitch_mm_per_turn' ? 'pitch' : 'length',
          value: of(first)[part],
          like: like(part),
          put: (v, _, also) => {
            for (const a of rows) {
              of(a)[part] = v;
              if (part === 'diameter') nameThread(of(a), also);
            }
          },
          saved: () => {
            const was = rows.map((a) => ({ ...of(a) }));
            return () => rows.forEach((a, r) => Object.assign(of(a), was[r]));
          },
        }),
      );
    };
    const table = (part: FigurePart): PlanAsk[] =>
      Object.entries(FIGURES[part]).map(([name, kind]) => {
        const of = (a: AdjusterDraft) => a[part] as unknown as Record<string, number | null>;
        const model = alike([part]);
        const there = model ? of(model)[name]! : null;
        return ask({
          ...own,
          path: `${path}.${part}.${name}`,
          title: `${who}: ${PART_WORDS[part][name]!.toLowerCase()}`,
          short: PART_WORDS[part][name]!.toLowerCase(),
          how: DRAWN.partHow[part],
          kind,
          value: of(first)[name] ?? null,
          like: there === null || !model ? null : { value: there, from: DRAWN.asAdjuster(model.name) },
          put: (v) => rows.forEach((a) => (of(a)[name] = v)),
        });
      });
    const shelf = (stack: NonNullable<AdjusterDraft['shims']>): PlanAsk =>
      listAsk(
        {
          ...own,
          path: `${path}.shims.shelf`,
          title: `${who}: ${PLAN.shelf.toLowerCase()}`,
          short: PLAN.shelf.toLowerCase(),
          how: DRAWN.shelfHow,
        },
        stack.shelf,
        (next) => rows.forEach((a) => (a.shims!.shelf = [...next])),
        alike(['shims'])
          ? { values: alike(['shims'])!.shims!.shelf, from: DRAWN.asAdjuster(alike(['shims'])!.name) }
          : null,
      );
    const locked = before.find((a) => a.lock && kindOf(a) === kindOf(first));
    return [
      ...(first.ends ?? []).flatMap((_, i) => thread(i)),
      ...FIGURE_PARTS.filter((p) => first[p]).flatMap(table),
      ...(first.shims ? [shelf(first.shims)] : []),
      ask({
        ...own,
        path: `${path}.lock`,
        title: `${who}: ${PLAN.lock.toLowerCase()}`,
        short: PLAN.lock.toLowerCase(),
        how: DRAWN.lockHow,
        kind: 'words',
        text: first.lock,
        like: locked ? { value: 0, from: `${DRAWN.asAdjuster(locked.name)}: ${locked.lock}`, text: locked.lock } : null,
        optional: true,
        put: (_, typed) => rows.forEach((a) => (a.lock = typed)),
      }),
    ];
  });
}

const slug = (name: string) =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');

/** The same adjuster at another corner of its axle: what it moves there, the other way where that is across the car. */
export function atCorner(a: AdjusterDraft, corner: AdjusterDraft['corner'], taken: readonly string[]): AdjusterDraft {
  const stem = `${corner}.${slug(a.name) || 'adjuster'}`;
  let id = stem;
  for (let n = 2; taken.includes(id); n++) id = `${stem}-${n}`;
  const across = a.corner[0] !== corner[0];
  const moves = a.moves && {
    name: across ? mirrorName(a.moves.name) : a.moves.name,
    direction: a.moves.direction && ([a.moves.direction[0], (across ? -1 : 1) * a.moves.direction[1] || 0, a.moves.direction[2]] as [number, number, number]), // prettier-ignore
  };
  return { ...structuredClone(a), id, corner, moves };
}
