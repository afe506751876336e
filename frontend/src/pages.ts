// The pages that come after the first: each is brought when it is opened, and all of them once the first is at rest, while the server is there.
import type { Component } from 'svelte';
import type { Car } from '$lib/car.svelte';

type Page = Component<{ car: Car }>;
const own = (found: { default: unknown }) => found.default as Page;
export const PAGES = {
  plan: () => import('./stages/plan/PlanPage.svelte').then(own),
  jig: () => import('./stages/jig/Jig.svelte').then(own),
  set: () => import('./stages/set/Set.svelte').then(own),
  stance: () => import('./stages/stance/Stance.svelte').then(own),
  travel: () => import('./stages/travel/Travel.svelte').then(own),
  practice: () => import('./stages/practice/Practice.svelte').then(own),
  truth: () => import('./stages/practice/Truth.svelte').then(own),
  wall: () => import('./stages/wall/Wall.svelte').then(own),
  log: () => import('./stages/log/Log.svelte').then(own),
  shop: () => import('./stages/shop/Shop.svelte').then(own),
} as const;
export type PageName = keyof typeof PAGES;

const here = new Map<PageName, Page>();
export const pageHere = (name: PageName): Page | undefined => here.get(name);
export async function bring(name: PageName): Promise<Page> {
  const found = here.get(name) ?? (await PAGES[name]());
  here.set(name, found);
  return found;
}
export const bringAll = (): void =>
  void (Object.keys(PAGES) as PageName[]).reduce<Promise<unknown>>(
    (before, name) => before.then(() => bring(name)).catch(() => undefined),
    Promise.resolve(),
  );
