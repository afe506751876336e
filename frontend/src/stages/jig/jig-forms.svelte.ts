// What the forms at the jig share: names to choose from, tools to read with, and writing down with the refusal shown on top.
import type { JigView, What } from '$lib/api/client';
import { CORNER_WORDS, spoken } from '$lib/marks';
import type { Survey } from './survey.svelte';
import { JIG } from './texts';

const EVERYTHING = '*'; // said on purpose: nothing of the frame counts any more after it
/** The points of an entry about a part of the frame; none where it is about all of it. */
export const pointsOf = (part: string): string[] => (part === EVERYTHING ? [] : [part]);

const CORNER_OF: Readonly<Record<string, string>> = Object.fromEntries(
  Object.entries(CORNER_WORDS).map(([corner, said]) => [said.toLowerCase(), corner.toLowerCase()]),
);
/** The words of a name: a corner by its letters, however it is said. */
function wordsOf(name: string): string[] {
  let said = spoken(name).toLowerCase();
  for (const [words, corner] of Object.entries(CORNER_OF)) said = said.replace(words, corner);
  return said.split(/[^a-z0-9]+/).filter(Boolean);
}

export class JigForms {
  refusal = $state('');

  constructor(
    readonly survey: Survey,
    readonly view: () => JigView,
  ) {}

  get names(): string[] {
    return this.view().points.map((p) => p.name);
  }

  /** Every beginning of the name of a point: what may be chosen as a part of the frame. */
  get parts(): string[] {
    const all = this.names.flatMap((n) => n.split('.').map((_, i, words) => words.slice(0, i + 1).join('.')));
    return [...new Set(all)].sort();
  }

  /** What may be said to have been worked on: all of the frame, or a part of it. */
  get places(): Record<string, string> {
    return { [EVERYTHING]: JIG.everything, ...Object.fromEntries(this.parts.map((p) => [p, spoken(p)])) };
  }

  /** What of the frame a joint is at, by its words in whatever order; nothing where they name none, or as well another. */
  partOf(joint: string): string {
    const words = wordsOf(joint);
    const all = this.parts.filter((part) => wordsOf(part).every((w) => words.includes(w)));
    const most = Math.max(0, ...all.map((part) => wordsOf(part).length));
    const best = all.filter((part) => wordsOf(part).length === most);
    return best.length === 1 ? best[0]! : '';
  }

  /** How many readings count no more once something is done there. */
  opens(part: string): number {
    const there = (name: string) => part === EVERYTHING || name === part || name.startsWith(`${part}.`);
    return this.view().readings.filter((r) => r.counts && r.points.some(there)).length;
  }

  tool(measures: 'length' | 'angle', first = ''): string {
    const fitting = this.view().tools.filter((t) => t.measures === measures);
    return (fitting.find((t) => t.id === first) ?? fitting[0])?.id ?? '';
  }

  record = async (what: What, title: string): Promise<boolean> => {
    this.refusal = await this.survey.record(what, title);
    return !this.refusal;
  };
}
