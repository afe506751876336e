// How often a reading was taken on this device: the small drawing of how it is held is shown until it has been done a few times.
import { SvelteMap } from 'svelte/reactivity';
import { keep, kept } from '$lib/shelf';
import { QUANTITIES } from '$lib/kinds';

const KEY = 'ready-corner/practised';
const ENOUGH = 3;
const done = new SvelteMap<string, number>(Object.entries(kept<Record<string, number>>(KEY) ?? {}));

/** By the way it is held, not by the figure: who has read one gap to a string can read the next. */
const sceneOf = (quantity: string) => QUANTITIES[quantity as keyof typeof QUANTITIES].scene;
export const practised = (quantity: string): boolean => (done.get(sceneOf(quantity)) ?? 0) >= ENOUGH;
export function practise(quantity: string): void {
  const scene = sceneOf(quantity);
  const times = done.get(scene) ?? 0;
  if (times >= ENOUGH) return;
  done.set(scene, times + 1);
  keep(KEY, Object.fromEntries(done));
}
