// Whether the cards of a page are the chapters of a long form: on a small page each then opens under its name.
import { getContext, setContext } from 'svelte';

const CHAPTERS = Symbol('chapters');
export const cardsAreChapters = (when: () => boolean): unknown => setContext(CHAPTERS, when);
export const chapters = (): (() => boolean) => getContext<() => boolean>(CHAPTERS) ?? (() => false);

/** Open every chapter that something stands in. */
export function openAround(place: Element | null): void {
  for (let at = place?.closest('details'); at; at = at.parentElement?.closest('details')) at.open = true;
}
