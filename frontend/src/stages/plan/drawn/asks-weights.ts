// What the car stands on and is built on: weights, tyres, stops, named places of the chassis, loads, the jig; and the points of the frame.
import { CORNER_WORDS, CORNERS, spoken } from '$lib/marks';
import type { Corner } from '$lib/api/client';
import type { Doubt, Draft, End, Figure } from '../draft';
import { END_FIGURES, endFigures, type FeatureDraft, newFeature } from '../footing';
import { DRAWN, FOOTING, PLAN } from '../texts';
import { ask, listAsk, type Like, placeAsks, type Place, type PlanAsk } from './ask';

const other = (name: string) => name.replace(/\b(left|right)\b/, (side) => (side === 'left' ? 'right' : 'left'));

function whole(draft: Draft): PlanAsk[] {
  const { footing } = draft;
  const own = { chapter: 'weights', group: 'footing' } as const;
  return [
    ask({ ...own, path: 'footing.mass', title: FOOTING.mass, short: DRAWN.weightShort.mass, how: DRAWN.massHow, kind: 'mass', value: footing.mass, optional: true, put: (v) => (footing.mass = v) }),
    ...(['front', 'left'] as const).map((part) =>
      ask({ ...own, path: `footing.${part}`, title: FOOTING[part], short: DRAWN.weightShort[part], how: DRAWN.shareHow, kind: 'number', value: footing[part], optional: true, put: (v) => (footing[part] = v ?? 50) }),
    ),
    ask({ ...own, path: 'footing.margin', title: FOOTING.margin, short: DRAWN.weightShort.margin, how: DRAWN.marginHow, value: footing.margin, optional: true, put: (v) => (footing.margin = v ?? 0) }),
  ]; // prettier-ignore
}

const ends = (draft: Draft): PlanAsk[] =>
  (['front', 'rear'] as const).flatMap((end: End) =>
    endFigures.map((part) => {
      const own = draft.footing.ends[end];
      const there = end === 'rear' ? draft.footing.ends.front[part] : null;
      return ask({
        path: `footing.${end}_end.${part}`,
        chapter: 'weights',
        group: `footing.${end}_end`,
        title: `${PLAN.axles[end]}: ${FOOTING[part].toLowerCase()}`,
        short: DRAWN.weightShort[part],
        how: DRAWN.endHow[part],
        kind: END_FIGURES[part],
        value: own[part],
        like: there === null ? null : { value: there, from: DRAWN.asInFront },
        optional: true,
        put: (v) => (own[part] = v),
      });
    }),
  );

function loads(draft: Draft): PlanAsk[] {
  const open = () =>
    (draft.loads ??= { height: null as unknown as number, front_share: null as unknown as number, brakes: 'outboard', drive: 'inboard', driven: 'rear' }); // prettier-ignore
  const own = { chapter: 'weights', group: 'loads', optional: true } as const;
  const share = draft.loads?.front_share ?? null;
  const done = () => {
    if (draft.loads && (draft.loads.height ?? null) === null && (draft.loads.front_share ?? null) === null)
      draft.loads = null;
  };
  return [
    ask({ ...own, path: 'loads.height', title: PLAN.cg, short: DRAWN.weightShort.cg, how: PLAN.loadsSoft, value: draft.loads?.height ?? null, put: (v) => ((open().height = v as number), done()) }),
    ask({ ...own, path: 'loads.front_share', title: PLAN.share, short: DRAWN.weightShort.share, how: PLAN.loadsSoft, kind: 'number', value: share === null ? null : Math.round(share * 1e6) / 1e4, put: (v) => ((open().front_share = v === null ? (v as unknown as number) : v / 100), done()) }),
  ]; // prettier-ignore
}

/** Places of the chassis by name, and a line for one more. */
function places(draft: Draft, list: 'features' | 'low' | 'stands'): PlanAsk[] {
  const rows = draft.footing[list];
  const named = (row: FeatureDraft, i: number): PlanAsk[] => {
    const before = rows[i - 1];
    const like = (axis: 0 | 1 | 2): Like | null => {
      const value = before ? [before.station, before.offset, before.height][axis]! : null;
      return value === null ? null : { value, from: DRAWN.asPoint(before!.name) };
    };
    const at: Place = [row.station, row.offset, row.height];
    const twin = () =>
      void rows.splice(i + 1, 0, { ...row, name: other(row.name), offset: row.offset === null ? null : -row.offset });
    return placeAsks({
      path: `footing.${list}.${i}`,
      chapter: 'weights',
      group: `footing.${list}.${i}`,
      name: row.name,
      at,
      set: ([station, offset, height]) => Object.assign(row, { station, offset, height }),
      like,
      twin: other(row.name) !== row.name && !rows.some((r) => r.name === other(row.name)) ? twin : null,
    });
  };
  return [
    ...rows.flatMap(named),
    ask({
      path: `footing.${list}.more`,
      chapter: 'weights',
      group: `footing.${list}.more`,
      title: DRAWN.another[list],
      short: DRAWN.another[list],
      how: FOOTING.listsSoft[list],
      kind: 'words',
      optional: true,
      put: (_, typed) => typed && rows.push({ ...newFeature(), name: typed }),
      saved: () => {
        const count = rows.length;
        return () => void rows.splice(count);
      },
    }),
  ];
}

function jig(draft: Draft): PlanAsk[] {
  const { feet } = draft.jig;
  const foot = (c: Corner): PlanAsk[] =>
    ([0, 1] as const).map((axis) => {
      const model = feet[axis === 0 ? (c.replace('R', 'L') as Corner) : (`${c[0]}F` as Corner)];
      const across = c[0] === 'R' ? feet[`L${c[1]}` as Corner] : undefined;
      const value = across ? (axis === 1 && across[1] !== null ? -across[1] : across[axis]) : axis === 1 ? (model?.[1] ?? null) : null;
      return ask({
        path: `jig.feet.${c}.${axis === 0 ? 'station' : 'offset'}`,
        chapter: 'weights',
        group: `jig.feet.${c}`,
        title: DRAWN.placeTitle(DRAWN.foot(CORNER_WORDS[c]), axis),
        short: DRAWN.placeShort[axis]!,
        how: DRAWN.footHow,
        value: feet[c]?.[axis] ?? null,
        like: value === null ? null : { value, from: across ? DRAWN.asOnTheLeft : DRAWN.asInFront },
        optional: true,
        spot: { x: feet[c]?.[0] ?? null, y: feet[c]?.[1] ?? null, name: DRAWN.foot(CORNER_WORDS[c]) },
        put: (v) => {
          const next: [number | null, number | null] = [...(feet[c] ?? [null, null])] as [null, null];
          next[axis] = v;
          if (next.every((n) => n === null)) delete feet[c];
          else feet[c] = next;
        },
      });
    }); // prettier-ignore
  return [
    ...CORNERS.flatMap(foot),
    ask({
      path: 'jig.pitch_mm_per_turn',
      chapter: 'weights',
      group: 'jig',
      title: DRAWN.footPitch,
      short: DRAWN.footPitch,
      how: DRAWN.footPitchHow,
      kind: 'pitch',
      value: draft.jig.pitch_mm_per_turn,
      optional: true,
      put: (v) => (draft.jig.pitch_mm_per_turn = v),
    }),
    listAsk(
      { path: 'jig.shims', chapter: 'weights', group: 'jig', title: DRAWN.jigShims, how: DRAWN.jigShimsHow },
      draft.jig.shims,
      (next) => (draft.jig.shims = next),
    ),
  ];
}

export const weights = (draft: Draft): PlanAsk[] => [
  ...whole(draft),
  ...ends(draft),
  ...(['features', 'low', 'stands'] as const).flatMap((list) => places(draft, list)),
  ...loads(draft),
  ...jig(draft),
];

export const FRAME = 'frame.';
const pointName = (typed: string) =>
  typed
    .trim()
    .toLowerCase()
    .replace(/^frame[. ]/, '')
    .replace(/[^a-z0-9]+/g, '.')
    .replace(/^\.|\.$/g, '');

/** How far a point of the frame may be off, however it is asked for. */
export const toleranceAsk = (draft: Draft, own: Pick<PlanAsk, 'path' | 'group' | 'title' | 'how'>): PlanAsk =>
  ask({
    ...own,
    chapter: 'frame',
    short: '±',
    value: draft.point_tolerance,
    optional: true,
    put: (v) => (draft.point_tolerance = v === null ? null : Math.abs(v)),
  });

/** Points of the frame by names of one's own. */
export function frame(draft: Draft): PlanAsk[] {
  const keys = Object.keys(draft.points).filter((k) => k.startsWith(FRAME));
  return [
    toleranceAsk(draft, {
      path: 'point_tolerance',
      group: 'frame',
      title: DRAWN.pointTolerance,
      how: DRAWN.pointToleranceHow,
    }),
    ...keys.flatMap((key, i) => {
      const before = keys[i - 1];
      return placeAsks({
        path: `points.${key}`,
        chapter: 'frame',
        group: `points.${key}`,
        name: spoken(key),
        at: draft.points[key]!,
        set: (place) => (draft.points[key] = place),
        like: (axis) => {
          const value = before ? draft.points[before]![axis] : null;
          return value === null ? null : { value, from: DRAWN.asPoint(spoken(before!)) };
        },
        twin:
          other(spoken(key)) !== spoken(key) && !keys.includes(FRAME + pointName(other(spoken(key))))
            ? () => {
                const [x, y, z] = draft.points[key]!;
                draft.points[FRAME + pointName(other(spoken(key)))] = [x, y === null ? null : -y, z];
              }
            : null,
      });
    }),
    ask({
      path: 'frame.more',
      chapter: 'frame',
      group: 'frame.more',
      title: DRAWN.another.frame,
      short: DRAWN.another.frame,
      how: DRAWN.frameHow,
      kind: 'words',
      optional: true,
      put: (_, typed) => {
        const name = pointName(typed);
        if (name) draft.points[FRAME + name] ??= [null, null, null];
      },
      saved: () => {
        const was = { ...draft.points };
        return () => void (draft.points = was);
      },
    }),
  ];
}

/** Where the mark of the frame at a corner is, that strings are held against. */
function frameMark(draft: Draft, c: Corner): PlanAsk[] {
  const { marks } = draft.ways;
  const name = DRAWN.frameMark(CORNER_WORDS[c]);
  return ([0, 1] as const).map((axis) =>
    ask({
      path: `ways.marks.${c}.${axis === 0 ? 'station' : 'offset'}`,
      chapter: 'ways',
      group: `ways.marks.${c}`,
      title: DRAWN.placeTitle(name, axis),
      short: DRAWN.placeShort[axis]!,
      how: DRAWN.frameMarkHow,
      value: marks[c]?.[axis] ?? null,
      spot: { x: marks[c]?.[0] ?? null, y: marks[c]?.[1] ?? null, name },
      put: (v) => {
        const next: [Figure, Figure] = [...(draft.ways.marks[c] ?? [null, null])] as [null, null];
        next[axis] = v;
        if (next.every((n) => n === null)) delete draft.ways.marks[c];
        else draft.ways.marks[c] = next;
      },
    }),
  );
}

/** Ways of working: what is surer than the usual doubts of a reading, and how the strings are set. */
export function ways(draft: Draft): PlanAsk[] {
  const own = { chapter: 'ways', group: 'ways', how: DRAWN.doubtHow, optional: true } as const;
  const doubts = Object.keys(PLAN.doubts) as Doubt[];
  return [
    ...doubts.map((doubt) =>
      ask({
        ...own,
        path: `ways.${doubt}`,
        title: PLAN.doubts[doubt],
        short: DRAWN.doubtShort[doubt],
        value: draft.ways[doubt],
        put: (v) => (draft.ways[doubt] = v),
      }),
    ),
    ...(['plates', 'bar'] as const).map((part) =>
      ask({
        ...own,
        path: `ways.${part}`,
        title: PLAN[part],
        short: PLAN[part].toLowerCase(),
        how: DRAWN.barLengthHow,
        value: draft.ways[part],
        put: (v) => (draft.ways[part] = v),
      }),
    ),
    ...draft.tools.flatMap((tool) =>
      (['step', 'repeatability', 'zero'] as const).map((part) =>
        ask({
          ...own,
          group: `tools.${tool.id}`,
          path: `tools.${tool.id}.${part}`,
          title: `${tool.name}: ${DRAWN.toolParts[part]}`,
          short: PLAN.tool[part].toLowerCase(),
          how: DRAWN.toolHow[part],
          kind: tool.measures === 'steer' ? 'angle' : tool.measures,
          value: tool[part] ?? null,
          optional: part === 'zero',
          put: (v) => (tool[part] = v as number),
        }),
      ),
    ),
    ...(draft.ways.strings === 'marks' ? CORNERS.flatMap((c) => frameMark(draft, c)) : []),
    ask({
      ...own,
      path: 'ways.strings_reason',
      title: `${PLAN.strings}: ${DRAWN.howSet}`,
      short: DRAWN.howSet,
      how: DRAWN.howSetHow,
      kind: 'words',
      text: draft.ways.strings_reason,
      put: (_, typed) => (draft.ways.strings_reason = typed),
    }),
  ];
}
