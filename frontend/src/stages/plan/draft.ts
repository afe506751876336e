// A plan while it is being filled in: figures may still be missing. Keeping it turns missing ones into problems at their fields.
import type { Corner, Linkage, Loads, Plan, Problem, Units } from '$lib/api/client';
import { CORNER_KINDS, markKindOf, MARK_KINDS, placeOf, WHOLE_MARKS, wholeName } from '$lib/kinds';
import { CORNER_WORDS, CORNERS } from '$lib/marks';
import { type FootingDraft, footingFrom, footingOf } from './footing';
import { PLAN } from './texts';

export type Figure = number | null;
export type Trust = '' | 'sure' | 'fair' | 'doubtful';
export interface AimDraft {
  aim: Figure;
  tolerance: Figure;
  source: string;
  trust: Trust;
  other: string;
  typed: string;
  beyond: '' | 'over' | 'under';
}
export interface EndDraft {
  diameter: Figure;
  pitch_mm_per_turn: Figure;
  engaged: Figure;
  exposed: Figure;
  hand: 'left' | 'right';
  least_engagement?: Figure;
}
export interface AdjusterDraft {
  id: string;
  name: string;
  corner: Corner;
  half_turns_only: boolean;
  lock: string;
  moves: { name: string; direction: [number, number, number] | null } | null;
  ends?: EndDraft[];
  shims?: Record<'thickness' | 'fitted' | 'most', Figure> & { shelf: number[] };
  perch?: Record<'pitch_mm_per_turn' | 'room_up' | 'room_down' | 'spring_per_wheel', Figure>;
  screw?: Record<'pitch_mm_per_turn' | 'lever' | 'room_up' | 'room_down' | 'degrees_per_wheel', Figure>;
  splines?: Record<'teeth' | 'up' | 'down' | 'degrees_per_wheel', Figure>;
  slide?: Record<'mark' | 'at' | 'most', Figure>;
  cam?: Record<'throw' | 'mark_deg' | 'most_deg' | 'at_deg', Figure>;
}
/** What an adjuster that goes by no link's thread begins with, part by part. */
const PARTS = {
  shims: { thickness: null, fitted: null, most: null, shelf: [] as number[] },
  perch: { pitch_mm_per_turn: null, room_up: null, room_down: null, spring_per_wheel: null },
  screw: { pitch_mm_per_turn: null, lever: null, room_up: null, room_down: null, degrees_per_wheel: null },
  splines: { teeth: null, up: null, down: null, degrees_per_wheel: null },
  slide: { mark: null, at: null, most: null },
  cam: { throw: null, mark_deg: null, most_deg: 90, at_deg: 0 },
} as const;
export type FigurePart = keyof typeof PARTS;
export const FIGURE_PARTS = Object.keys(PARTS) as FigurePart[];
/** Whether it raises its corner by the spring: such move no link. */
export const raises = (kind: AdjusterKind): boolean => kind === 'perch' || kind === 'screw' || kind === 'splines';
export type Doubt = 'hub_middle' | 'box_parallel' | 'mark_places' | 'span' | 'run_out' | 'floor' | 'settled';
export interface AxleDraft {
  track: Figure;
  rim_flange_diameter: Figure;
  tyre_diameter: Figure;
  hub_width: Figure;
}
export interface Draft {
  name: string;
  about: string;
  units: Units;
  wheelbase: Figure;
  front: AxleDraft;
  rear: AxleDraft;
  aims: Record<string, AimDraft>;
  buildAims: Record<string, AimDraft>;
  stage: 'running' | 'build';
  heights: Record<Corner, { name: string; station: Figure; offset: Figure; height: Figure }>;
  footing: FootingDraft;
  adjusters: AdjusterDraft[];
  tools: Plan['tools'];
  ways: {
    strings: 'each' | 'box' | 'marks';
    marks: Partial<Record<Corner, [Figure, Figure]>>;
    strings_reason: string;
    strings_on: '' | 'stands' | 'car' | 'tyres';
    plates: Figure;
    bar: Figure;
    read_by: Record<string, string>;
  } & Record<Doubt, Figure>;
  points: Record<string, [Figure, Figure, Figure]>;
  linkages: Record<End, Linkage | null>;
  loads: Loads | null;
  point_tolerance: Figure;
  jig: { feet: Partial<Record<Corner, [Figure, Figure]>>; pitch_mm_per_turn: Figure; shims: number[] };
  tool_for: Record<string, string>;
  provisional: string[];
}
export type End = 'front' | 'rear';
export type AdjusterKind = keyof typeof PLAN.add;

export const MARKS = [
  ...CORNER_KINDS.flatMap((kind) => MARK_KINDS[kind]!.at.map((c) => `${c}.${kind}`)),
  ...WHOLE_MARKS,
];
const TYPED = { mm: 'length', deg: 'angle', kg: 'number', '%': 'number' } as const;
/** As what a figure of a mark is typed. A toe may be typed as a length over a span, too. */
export const markKind = (mark: string): 'length' | 'angle' | 'number' | 'toe' | 'total_toe' => {
  const kind = markKindOf(mark);
  return kind === 'toe' || kind === 'total_toe' ? kind : TYPED[MARK_KINDS[kind]!.unit];
};
/** What a mark of the car as a whole is called where its aim is given: with what plus means, or its unit. */
export const wholeLabel = (mark: string): string => {
  const { unit, plus } = MARK_KINDS[markKindOf(mark)]!;
  return `${wholeName(mark, 'label')}${unit === '%' ? ', %' : plus && unit === 'deg' && markKindOf(mark) !== 'total_toe' ? `, plus ${plus}` : ''}`;
};
/** What a mark is called where its aim is given. */
export const markName = (mark: string): string => {
  const corner = CORNERS.find((c) => c === placeOf(mark));
  return corner ? `${CORNER_WORDS[corner]} ${markKindOf(mark)}` : wholeLabel(mark);
};
/** What a toe may be said over: rim and tyre of the axle of a mark. */
export const spansOf = (draft: Draft, mark: string) => {
  const axle = /^(LF|RF|front)/.test(mark) ? draft.front : draft.rear;
  return { rim: axle.rim_flange_diameter, tyre: axle.tyre_diameter };
};

const emptyAxle = (): AxleDraft => ({ track: null, rim_flange_diameter: null, tyre_diameter: null, hub_width: null });
const everyCorner = <T>(make: (c: Corner) => T) =>
  Object.fromEntries(CORNERS.map((c) => [c, make(c)])) as Record<Corner, T>;

const aimsOf = (aims: Plan['aims'] | undefined): Record<string, AimDraft> =>
  Object.fromEntries(
    MARKS.map((mark) => {
      const found = aims?.find((a) => a.mark === mark);
      return [
        mark,
        {
          aim: found?.aim ?? null,
          tolerance: found?.tolerance ?? null,
          source: found?.source ?? '',
          trust: found?.trust ?? '',
          other: found?.other ?? '',
          typed: found?.typed ?? '',
          beyond: found?.beyond ?? '',
        },
      ];
    }),
  );

export function draftOf(plan: Plan | null): Draft {
  return {
    name: plan?.name ?? '',
    about: plan?.about ?? '',
    units: { system: plan?.units.system ?? 'mm', finest: plan?.units.finest ?? 32 },
    wheelbase: plan?.wheelbase ?? null,
    front: { ...emptyAxle(), ...plan?.front },
    rear: { ...emptyAxle(), ...plan?.rear },
    aims: aimsOf(plan?.aims),
    buildAims: aimsOf(plan?.build_aims),
    stage: plan?.stage ?? 'running',
    heights: everyCorner((c) => {
      const found = plan?.heights.find((h) => h.corner === c);
      return {
        name: found?.name ?? '',
        station: found?.station ?? null,
        offset: found?.offset ?? null,
        height: found?.height ?? null,
      };
    }),
    adjusters: structuredClone(plan?.adjusters ?? []).map((a) => ({
      id: a.id,
      name: a.name,
      corner: a.corner,
      half_turns_only: a.half_turns_only ?? false,
      lock: a.lock ?? '',
      moves: a.moves ? { name: a.moves.name, direction: a.moves.direction ?? null } : null,
      ...(a.ends ? { ends: a.ends.map((e) => ({ ...e, hand: e.hand ?? 'right' })) } : {}),
      ...Object.fromEntries(FIGURE_PARTS.filter((p) => a[p]).map((p) => [p, { ...PARTS[p], ...a[p] }])),
    })),
    tools: structuredClone(plan?.tools ?? []),
    tool_for: { ...plan?.tool_for },
    provisional: [...(plan?.provisional ?? [])],
    ways: {
      strings: plan?.ways.strings ?? 'each',
      strings_reason: plan?.ways.strings_reason ?? '',
      strings_on: plan?.ways.strings_on ?? '',
      hub_middle: plan?.ways.hub_middle ?? null,
      box_parallel: plan?.ways.box_parallel ?? null,
      mark_places: plan?.ways.mark_places ?? null,
      marks: { ...plan?.ways.marks },
      span: plan?.ways.span ?? null,
      run_out: plan?.ways.run_out ?? null,
      floor: plan?.ways.floor ?? null,
      settled: plan?.ways.settled ?? null,
      plates: plan?.ways.plates ?? null,
      bar: plan?.ways.bar ?? null,
      read_by: { ...plan?.ways.read_by },
    },
    points: structuredClone(plan?.points ?? {}) as Draft['points'],
    linkages: {
      front: structuredClone(plan?.front_linkage ?? null),
      rear: structuredClone(plan?.rear_linkage ?? null),
    },
    loads: structuredClone(plan?.loads ?? null),
    footing: footingOf(plan?.footing),
    point_tolerance: plan?.point_tolerance ?? null,
    jig: {
      feet: { ...plan?.jig?.feet },
      pitch_mm_per_turn: plan?.jig?.pitch_mm_per_turn ?? null,
      shims: [...(plan?.jig?.shims ?? [])],
    },
  };
}

const plain = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const filled = (empty: Record<string, unknown>, held: Record<string, unknown>): Record<string, unknown> => ({
  ...empty,
  ...Object.fromEntries(
    Object.entries(held).map(([k, v]) => [k, plain(empty[k]) && plain(v) ? filled(empty[k], v) : v]),
  ),
});

/** A draft that an earlier version of the program kept: what it did not know of yet stands as in an empty one. */
export function upToDate(held: Draft): Draft {
  const whole = filled({ ...draftOf(null) }, { ...held }) as unknown as Draft;
  const parts = (a: AdjusterDraft) => FIGURE_PARTS.filter((p) => a[p]).map((p) => [p, { ...PARTS[p], ...a[p] }]);
  return { ...whole, adjusters: whole.adjusters.map((a) => ({ ...a, ...Object.fromEntries(parts(a)) })) };
}

export const kindOf = (a: AdjusterDraft): AdjusterKind =>
  FIGURE_PARTS.find((part) => a[part]) ?? (a.ends?.length === 2 ? 'tube' : 'rod_end');

export function newAdjuster(kind: AdjusterKind, taken: string[]): AdjusterDraft {
  let n = 1;
  while (taken.includes(`${kind}-${n}`)) n++;
  const end = (hand: 'left' | 'right'): EndDraft => ({
    diameter: null,
    pitch_mm_per_turn: null,
    engaged: null,
    exposed: null,
    hand,
  });
  const made: AdjusterDraft = {
    id: `${kind}-${n}`,
    name: '',
    corner: 'LF',
    half_turns_only: false,
    lock: '',
    moves: null,
  };
  if (kind === 'tube' || kind === 'rod_end') made.ends = kind === 'tube' ? [end('right'), end('left')] : [end('right')];
  else return { ...made, [kind]: { ...PARTS[kind] } };
  return made;
}

const linkageFrom = (held: Linkage | null) =>
  held && { ...held, toe_deg: held.toe_deg ?? 0, camber_deg: held.camber_deg ?? 0 };

/** The jig of a draft: none where nothing of it is given. */
function jigFrom(jig: Draft['jig'], need: (value: Figure, path: string) => number): object | null {
  const given = Object.entries(jig.feet).filter(([, at]) => at.some((v) => v !== null));
  if (!given.length && jig.pitch_mm_per_turn === null && !jig.shims.length) return null;
  return {
    feet: Object.fromEntries(given.map(([c, at]) => [c, at.map((v) => need(v, `jig.feet.${c}`))])),
    pitch_mm_per_turn: jig.pitch_mm_per_turn,
    shims: jig.shims,
  };
}

/** Return the plan of a draft, or what is still missing, each at its path. */
export const MISSING = 'form.missing';

/** What the wheels of a car are taken to be that is begun with its frame, each marked provisional: mm. */
const ROUGH = { wheelbase: 2400, track: 1400, rim_flange_diameter: 381, tyre_diameter: 600 };

/** Take every dimension of the wheels that is not given yet to be a rough one, and not settled; returns which those are. */
export function roughOut(draft: Draft): string[] {
  const rows: string[] = [];
  const rough = (of: object, part: keyof typeof ROUGH, path: string) => {
    const figures = of as Record<string, Figure>;
    if (figures[part] !== null) return;
    figures[part] = ROUGH[part];
    rows.push(path);
  };
  rough(draft, 'wheelbase', 'wheelbase');
  for (const end of ['front', 'rear'] as const)
    for (const part of ['track', 'rim_flange_diameter', 'tyre_diameter'] as const)
      rough(draft[end], part, `${end}.${part}`);
  draft.provisional = [...draft.provisional, ...rows];
  return rows;
}

export function planOf(draft: Draft, before: Plan | null): { plan: Plan } | { problems: Problem[] } {
  const problems: Problem[] = [];
  const need = (value: Figure | undefined, path: string): number => {
    if (value === null || value === undefined)
      problems.push({ path, kind: MISSING, sentence: PLAN.missing, numbers: {} });
    return value ?? 0;
  };
  const all = <T extends object>(row: T, path: string, optional: string[] = []) =>
    Object.fromEntries(
      Object.entries(row).map(([key, value]) => [
        key,
        value === null && !optional.includes(key) ? need(null, `${path}.${key}`) : value,
      ]),
    );
  const aimRows = (aims: Record<string, AimDraft>, path: string) =>
    Object.entries(aims)
      .filter(([, a]) => a.aim !== null || a.tolerance !== null)
      .map(([mark, a]) => ({
        ...a,
        mark,
        aim: need(a.aim, `${path}.${mark}.aim`),
        tolerance: need(a.tolerance, `${path}.${mark}.tolerance`),
      }));
  for (const end of ['front', 'rear'] as const)
    if (draft.linkages[end]) need(draft.linkages[end].loaded_radius, `${end}_linkage.loaded_radius`);
  if (!draft.name.trim()) problems.push({ path: 'name', kind: MISSING, sentence: PLAN.missing, numbers: {} });
  const plan = {
    ...before, // what this form does not show stays
    format: 'ready-corner plan',
    version: 1,
    name: draft.name.trim(),
    about: draft.about,
    units: draft.units,
    wheelbase: need(draft.wheelbase, 'wheelbase'),
    front: all(draft.front, 'front', ['hub_width']),
    rear: all(draft.rear, 'rear', ['hub_width']),
    aims: aimRows(draft.aims, 'aims'),
    build_aims: aimRows(draft.buildAims, 'build_aims'),
    stage: draft.stage,
    heights: CORNERS.filter((c) => draft.heights[c].name.trim()).map((c) => ({
      corner: c,
      name: draft.heights[c].name.trim(),
      station: need(draft.heights[c].station, `heights.${c}.station`),
      offset: need(draft.heights[c].offset, `heights.${c}.offset`),
      height: draft.heights[c].height,
    })),
    footing: footingFrom(draft.footing, need),
    adjusters: draft.adjusters.map((a) => {
      const path = `adjusters.${a.id}`;
      if (!a.name.trim()) problems.push({ path: `${path}.name`, kind: MISSING, sentence: PLAN.missing, numbers: {} });
      return {
        id: a.id,
        name: a.name.trim() || a.id,
        corner: a.corner,
        half_turns_only: a.half_turns_only,
        lock: a.lock,
        moves: a.moves,
        ...(a.ends ? { ends: a.ends.map((e, i) => all(e, `${path}.ends.${i}`, ['least_engagement'])) } : {}),
        ...Object.fromEntries(FIGURE_PARTS.filter((p) => a[p]).map((p) => [p, all(a[p]!, `${path}.${p}`)])),
      };
    }),
    tools: draft.tools.map((tool) => ({
      ...tool,
      step: need(tool.step, `tools.${tool.id}.step`),
      repeatability: need(tool.repeatability, `tools.${tool.id}.repeatability`),
      zero: tool.zero ?? 0,
    })),
    tool_for: draft.tool_for,
    provisional: draft.provisional.filter((path) => !path.startsWith('points.') || path.slice(7) in draft.points),
    ways: {
      ...draft.ways,
      marks: Object.fromEntries(
        Object.entries(draft.ways.marks)
          .filter(([, at]) => at.some((v) => v !== null))
          .map(([c, at]) => [c, at.map((v) => need(v, `ways.marks.${c}`))]),
      ),
    },
    points: Object.fromEntries(
      Object.entries(draft.points).map(([name, place]) => [name, place.map((v) => need(v, `points.${name}`))]),
    ),
    front_linkage: linkageFrom(draft.linkages.front),
    rear_linkage: linkageFrom(draft.linkages.rear),
    loads: draft.loads && all(draft.loads, 'loads'),
    ...(draft.point_tolerance === null ? {} : { point_tolerance: draft.point_tolerance }),
    jig: jigFrom(draft.jig, need),
  };
  return problems.length ? { problems } : { plan: plan as unknown as Plan };
}
