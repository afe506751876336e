// The tools of a plan.
import type { Plan } from '$lib/api/client';

export type PlanTool = NonNullable<Plan['tools']>[number];
export type Measures = PlanTool['measures'];
export const MEASURES: Readonly<Record<Measures, string>> = {
  length: 'lengths',
  angle: 'angles',
  mass: 'loads',
  steer: 'steer angles, a plate',
};

/** A new tool: its figures are still to be given, and until they are it can tell nothing. */
export function newTool(name: string, measures: Measures, taken: readonly string[]): PlanTool {
  const stem =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'tool';
  let id = stem;
  for (let n = 2; taken.includes(id); n++) id = `${stem}-${n}`;
  return { id, name, measures, step: null as unknown as number, repeatability: null as unknown as number, zero: 0 };
}
