// All that a plan on its drawing asks for, in walking order; what each chapter holds, and what the plan can answer.
import type { Layout } from '$lib/api/client';
import { cornerName } from '$lib/kinds';
import { CORNERS } from '$lib/marks';
import type { Draft, End } from '../draft';
import { DRAWN, PLAN } from '../texts';
import type { Chapter, PlanAsk } from './ask';
import { adjusters } from './asks-adjusters';
import { aims, dimensions, heights } from './asks-main';
import { frame, ways, weights } from './asks-weights';
import { wheels } from './asks-wheels';

export const asksOf = (draft: Draft, apart: ReadonlySet<string>, layouts: readonly Layout[]): PlanAsk[] => [
  ...dimensions(draft),
  ...aims(draft, 'aims', apart),
  ...heights(draft),
  ...wheels(draft, layouts, 'front', apart),
  ...wheels(draft, layouts, 'rear', apart),
  ...adjusters(draft, layouts, apart),
  ...weights(draft),
  ...frame(draft),
  ...aims(draft, 'build', apart),
  ...ways(draft),
];

export interface Answer {
  chapter: Chapter;
  says: string;
  left: string[];
}
/** What a plan can answer once some figures are given: each with the figures it wants still. */
export function answersOf(draft: Draft, asks: PlanAsk[]): Answer[] {
  const wants = (asked: PlanAsk[]) => asked.filter((a) => a.value === null && !a.optional).map((a) => a.title);
  const dims = asks.filter((a) => a.chapter === 'dimensions');
  const track = dims.filter((a) => /wheelbase|track/.test(a.path));
  const anyAim = (kind: string) =>
    CORNERS.some((c) => draft.aims[`${c}.${kind}`]?.aim !== null && draft.aims[`${c}.${kind}`]?.tolerance !== null)
      ? []
      : [DRAWN.anAim(cornerName(kind, 'label').toLowerCase())];
  const held = (end: End) =>
    draft.linkages[end]
      ? wants(asks.filter((a) => a.chapter === end))
      : [DRAWN.layoutOf(PLAN.axles[end].toLowerCase())];
  const turned = draft.adjusters.length ? wants(asks.filter((a) => a.chapter === 'adjusters')) : [DRAWN.anAdjuster];
  const weighed = draft.footing.mass === null ? [DRAWN.weightShort.mass] : [];
  return [
    { chapter: 'dimensions', says: DRAWN.answers.toe, left: [...wants(dims), ...anyAim('toe')] },
    { chapter: 'aims', says: DRAWN.answers.camber, left: [...wants(dims), ...anyAim('camber')] },
    { chapter: 'heights', says: DRAWN.answers.height, left: [...wants(track), ...anyAim('height')] },
    { chapter: 'front', says: DRAWN.answers.travel, left: held('front') },
    { chapter: 'rear', says: DRAWN.answers.travel, left: held('rear') },
    { chapter: 'adjusters', says: DRAWN.answers.turns, left: [...turned, ...held('front'), ...held('rear')] },
    { chapter: 'weights', says: DRAWN.answers.stand, left: [...weighed, ...held('front'), ...held('rear')] },
  ];
}

/** How far a chapter is given, as it is said beside its name. */
export function givenOf(asks: PlanAsk[], chapter: Chapter): string {
  const own = asks.filter((a) => a.chapter === chapter && a.kind !== 'words');
  const [wanted, given] = [own.filter((a) => !a.optional), own.filter((a) => a.value !== null)];
  const left = wanted.filter((a) => a.value === null).length;
  if (left) return DRAWN.ofWanted(wanted.length - left, wanted.length);
  return given.length ? DRAWN.figures(given.length) : '';
}
