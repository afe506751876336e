// What the car stands on while it is being filled in. Shares are percent here and parts of one in the plan.
import type { Plan } from '$lib/api/client';

type Figure = number | null;
type End = 'front' | 'rear';
type Footing = Plan['footing'];
type Need = (value: Figure | undefined, path: string) => number;
export interface FeatureDraft {
  name: string;
  station: Figure;
  offset: Figure;
  height: Figure;
}
export interface EndFootingDraft {
  tyre_rate: Figure;
  unsprung: Figure;
  bump: Figure;
  droop: Figure;
  to_body: Figure;
  bar: { diameter: Figure; bore: Figure; length: Figure; arm: Figure; rest: object };
}
export interface FootingDraft {
  mass: Figure;
  front: number;
  left: number;
  school: 'height' | 'weight' | 'both';
  school_reason: string;
  margin: number;
  features: FeatureDraft[];
  low: FeatureDraft[];
  stands: FeatureDraft[];
  ends: Record<End, EndFootingDraft>;
}

/** As what the figures of an end are typed. */
export const END_FIGURES = {
  tyre_rate: 'rate',
  unsprung: 'mass',
  bump: 'length',
  droop: 'length',
  to_body: 'length',
} as const;
export const endFigures = Object.keys(END_FIGURES) as (keyof typeof END_FIGURES)[];

export const newFeature = (): FeatureDraft => ({ name: '', station: null, offset: null, height: null });
const percent = (share: number | undefined) => Math.round((share ?? 0.5) * 1e6) / 1e4;

function endOf(end: Footing['front_end'] | undefined): EndFootingDraft {
  const { diameter, bore, length, arm, ...rest } = end?.bar ?? { diameter: null, bore: null, length: null, arm: null };
  return {
    tyre_rate: end?.tyre_rate ?? null,
    unsprung: end?.unsprung ?? null,
    bump: end?.bump ?? null,
    droop: end?.droop ?? null,
    to_body: end?.to_body ?? null,
    bar: { diameter, bore: bore ?? null, length, arm, rest },
  };
}

export function footingOf(footing: Footing | undefined): FootingDraft {
  const rows = (list: 'features' | 'low' | 'stands') => (footing?.[list] ?? []).map((f) => ({ ...f }));
  return {
    mass: footing?.mass ?? null,
    front: percent(footing?.front),
    left: percent(footing?.left),
    school: footing?.school ?? 'height',
    school_reason: footing?.school_reason ?? '',
    margin: footing?.margin ?? 5,
    features: rows('features'),
    low: rows('low'),
    stands: rows('stands'),
    ends: { front: endOf(footing?.front_end), rear: endOf(footing?.rear_end) },
  };
}

/** Return the plan's form of it; a bar counts once its diameter is given, and then wants its length and arm. */
export function footingFrom(draft: FootingDraft, need: Need): object {
  const end = ({ bar, ...rest }: EndFootingDraft, path: string) => ({
    ...rest,
    bar:
      bar.diameter === null
        ? null
        : {
            ...bar.rest,
            diameter: bar.diameter,
            bore: bar.bore ?? 0,
            length: need(bar.length, `${path}.length`),
            arm: need(bar.arm, `${path}.arm`),
          },
  });
  const rows = (list: 'features' | 'low' | 'stands') =>
    draft[list]
      .filter((f) => f.name.trim())
      .map((f, i) => {
        const path = `footing.${list}.${i}`;
        return {
          name: f.name.trim(),
          station: need(f.station, `${path}.station`),
          offset: need(f.offset, `${path}.offset`),
          height: need(f.height, `${path}.height`),
        };
      });
  return {
    mass: draft.mass,
    front: draft.front / 100,
    left: draft.left / 100,
    school: draft.school,
    school_reason: draft.school_reason,
    margin: draft.margin,
    features: rows('features'),
    low: rows('low'),
    stands: rows('stands'),
    front_end: end(draft.ends.front, 'footing.bar.front'),
    rear_end: end(draft.ends.rear, 'footing.bar.rear'),
  };
}
