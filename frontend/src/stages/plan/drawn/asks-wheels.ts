// What an end is asked once its layout is chosen: how it is drawn, its points in walking order, springs, plunge and joints.
import type { Layout, Linkage } from '$lib/api/client';
import type { Draft, End } from '../draft';
import { COIL, newJoint, newLinkage, type Spring } from '../linkage-parts';
import { mirrorName } from '$lib/mirror';
import { namesOf, prefixOf } from '../linkage-points.svelte';
import { DRAWN, PARTS, PLAN, SPRINGS } from '../texts';
import { ask, type Like, placeAsks, type PlanAsk } from './ask';

const FAR = /\.(ball|outer|wheel|push|damper)$/;
const named = (name: string) => name.replaceAll('.', ' ');

function facts(draft: Draft, linkage: Linkage, end: End): PlanAsk[] {
  const corner = end === 'front' ? 'LF' : 'LR';
  const aim = (kind: string): Like | null => {
    const value = draft.aims[`${corner}.${kind}`]?.aim ?? null;
    return value === null ? null : { value, from: DRAWN.asWanted };
  };
  const own = { chapter: end, group: `${end}_linkage` } as const;
  return [
    ask({
      ...own,
      path: `${end}_linkage.loaded_radius`,
      title: `${PLAN.axles[end]}: ${PLAN.radius.toLowerCase()}`,
      short: PLAN.radius.toLowerCase(),
      how: DRAWN.radiusHow,
      value: linkage.loaded_radius || null,
      put: (v) => (linkage.loaded_radius = v as number),
    }),
    ...(['camber', 'toe'] as const).map((kind) =>
      ask({
        ...own,
        path: `${end}_linkage.${kind}_deg`,
        title: `${PLAN.axles[end]}: ${(kind === 'camber' ? PLAN.camberDesign : PLAN.toeDesign).toLowerCase()}`,
        short: kind,
        how: DRAWN.asDrawnHow,
        kind: 'angle',
        value: linkage[`${kind}_deg`] ?? null,
        like: aim(kind) ?? { value: 0, from: DRAWN.nought },
        optional: true,
        put: (v) => (linkage[`${kind}_deg`] = v as number),
      }),
    ),
  ];
}

/** Every point of one side; the other side is its mirror until it is wanted unlike. */
function points(draft: Draft, layout: Layout, end: End, apart: ReadonlySet<string>): PlanAsk[] {
  const along = end === 'front' ? 0 : draft.wheelbase === null ? null : -draft.wheelbase;
  const prefix = prefixOf(layout, end);
  const key = (name: string) => (/^(box|idler)\./.test(name) ? `${end}.${name}` : `${prefix}.${name}`);
  const { needed, box, more } = namesOf(draft, layout, end);
  const keys = [...needed, ...box, ...more].map(key);
  const pair = `points.${end}`;
  const others = keys.map(mirrorName).filter((k, i) => k !== keys[i] && !keys.includes(k));
  const unlike = apart.has(pair) || others.some((k) => k in draft.points);
  const wheel = (name: string): readonly (Like | null)[] => {
    const { track } = draft[end];
    const radius = draft.linkages[end]?.loaded_radius ?? null;
    return [
      along === null ? null : { value: along, from: DRAWN.onAxle },
      track === null ? null : { value: (name.includes('right') ? -1 : 1) * (track / 2), from: DRAWN.halfTrack },
      radius ? { value: radius, from: DRAWN.radiusUp } : null,
    ];
  };
  const one = (full: string, i: number, all: string[], model?: string): PlanAsk[] => {
    const name = full.slice(full.indexOf('.') + 1);
    const group = (k: string) => k.split('.')[1];
    // A pivot stands often as the one before it; the far end of a link as nothing else.
    const before = FAR.test(full)
      ? undefined
      : all.slice(0, i).findLast((k) => group(k) === group(full) && !FAR.test(k));
    const like = (axis: 0 | 1 | 2): Like | null => {
      const there = model ? draft.points[model]?.[axis] : undefined;
      if (there !== undefined && there !== null) return { value: axis === 1 ? -there : there, from: DRAWN.mirror };
      if (/(^|\.)wheel$/.test(name)) return wheel(name)[axis]!;
      const value = before ? (draft.points[before]?.[axis] ?? null) : null;
      if (value !== null) return { value, from: DRAWN.asPoint(named(before!.slice(before!.indexOf('.') + 1))) };
      return axis === 0 && along !== null ? { value: along, from: DRAWN.onAxle } : null;
    };
    return placeAsks({
      path: `points.${full}`,
      chapter: end,
      group: `points.${full}`,
      name: model ? `${DRAWN.right}, ${named(name)}` : named(name),
      at: draft.points[full] ?? [null, null, null],
      set: (place) => {
        if (place.every((v) => v === null)) delete draft.points[full];
        else draft.points[full] = place;
      },
      like,
      optional: Boolean(model),
      pair: others.length ? pair : '',
    });
  };
  return [
    ...keys.flatMap((k, i) => one(k, i, keys)),
    ...(unlike ? others.flatMap((k, i) => one(k, i, others, mirrorName(k))) : []),
  ];
}

function springs(draft: Draft, linkage: Linkage, end: End): PlanAsk[] {
  const there = end === 'rear' ? draft.linkages.front?.springs : undefined;
  return (linkage.springs ?? []).flatMap((spring, i) => {
    const model: Spring | undefined = i ? linkage.springs![0] : there?.[0];
    return COIL.map((part) =>
      ask({
        path: `${end}_linkage.springs.${spring.name}.${part}`,
        chapter: end,
        group: `${end}.${spring.name}`,
        title: `${PLAN.axles[end]}, ${spring.name}: ${SPRINGS[part].toLowerCase()}`,
        short: SPRINGS[part].toLowerCase(),
        how: DRAWN.springHow[part],
        kind: part === 'rate' ? 'rate' : 'length',
        value: part === 'seat' ? spring.seat || null : (spring[part] ?? null),
        like: model?.[part] ? { value: model[part], from: i ? DRAWN.asPoint(model.name) : DRAWN.asInFront } : null,
        optional: true,
        put: (v) => Object.assign(spring, { [part]: part === 'seat' ? (v ?? 0) : v }),
      }),
    );
  });
}

const joined = (draft: Draft, end: End, member: string, at: string) =>
  (draft.linkages[end]?.joints ?? []).find((j) => j.member === member && j.at === at);
function joints(draft: Draft, layout: Layout, linkage: Linkage, end: End): PlanAsk[] {
  return layout.members.flatMap((member) =>
    (['inner', 'outer'] as const).map((at) => {
      const found = joined(draft, end, member, at);
      const model = end === 'rear' ? joined(draft, 'front', member, at) : undefined;
      return ask({
        path: `${end}_linkage.joints.${member}.${at}`,
        chapter: end,
        group: `${end}.joints`,
        title: `${PLAN.axles[end]}: ${DRAWN.jointOf(member, PARTS.ends[at])}`,
        short: `${member} ${PARTS.ends[at]}`,
        how: DRAWN.jointHow,
        kind: 'angle',
        value: found?.limit_deg ?? null,
        like: model ? { value: model.limit_deg, from: DRAWN.asInFront } : null,
        optional: true,
        put: (v) => {
          const others = (linkage.joints ?? []).filter((j) => j !== found);
          if (v === null) linkage.joints = others;
          else if (found) found.limit_deg = v;
          else linkage.joints = [...others, { ...newJoint(member), at, limit_deg: v }];
        },
      });
    }),
  );
}

function rest(draft: Draft, linkage: Linkage, end: End): PlanAsk[] {
  const { bar } = draft.footing.ends[end];
  const { shaft } = linkage;
  return [
    ...(linkage.bar
      ? (['diameter', 'bore', 'length', 'arm'] as const).map((part) =>
          ask({
            path: `footing.${end}_end.bar.${part}`,
            chapter: end,
            group: `${end}.bar`,
            title: DRAWN.barOf(PLAN.axles[end], part),
            short: DRAWN.barShort[part],
            how: DRAWN.barHow[part],
            value: bar[part],
            like: part === 'bore' ? { value: 0, from: DRAWN.solid } : null,
            optional: true,
            put: (v) => (bar[part] = v),
          }),
        )
      : []),
    ...(shaft
      ? (['pushed', 'pulled'] as const).map((way) =>
          ask({
            path: `${end}_linkage.shaft.${way}`,
            chapter: end,
            group: `${end}.shaft`,
            title: `${PLAN.axles[end]}, ${PARTS.shaft.toLowerCase()}: ${PARTS.plunge[way].toLowerCase()}`,
            short: PARTS.plunge[way].toLowerCase(),
            how: DRAWN.plungeHow,
            value: shaft[way] ?? null,
            optional: true,
            put: (v) => (shaft[way] = v),
          }),
        )
      : []),
  ];
}

/** How the wheels are held, by its name or the beginning of it. */
function choice(draft: Draft, layouts: readonly Layout[], end: End): PlanAsk {
  return ask({
    path: `${end}_linkage.layout`,
    chapter: end,
    group: `${end}_linkage.layout`,
    title: `${PLAN.axles[end]}: ${DRAWN.held}`,
    short: PLAN.layout.toLowerCase(),
    how: DRAWN.layoutHow,
    kind: 'words',
    optional: true,
    put: (_, typed) => {
      if (!typed) return void (draft.linkages[end] = null);
      const found = layouts.filter((l) => l.name.startsWith(typed.trim().toLowerCase()));
      if (found.length !== 1) throw new Error(DRAWN.noLayout(typed, layouts.map((l) => l.name).join(', ')));
      draft.linkages[end] = newLinkage(found[0]!.name, end);
    },
  });
}

export function wheels(draft: Draft, layouts: readonly Layout[], end: End, apart: ReadonlySet<string>): PlanAsk[] {
  const linkage = draft.linkages[end];
  const layout = layouts.find((l) => l.name === linkage?.layout);
  if (!linkage || !layout) return [choice(draft, layouts, end)];
  return [
    ...facts(draft, linkage, end),
    ...points(draft, layout, end, apart),
    ...springs(draft, linkage, end),
    ...rest(draft, linkage, end),
    ...joints(draft, layout, linkage, end),
  ];
}
