// What the forms at the jig share: names to choose from, tools to read with, and writing down with the refusal shown on top.
import type { JigView, What } from '$lib/api/client';
import type { Survey } from './survey.svelte';

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

  tool(measures: 'length' | 'angle', first = ''): string {
    const fitting = this.view().tools.filter((t) => t.measures === measures);
    return (fitting.find((t) => t.id === first) ?? fitting[0])?.id ?? '';
  }

  record = async (what: What, title: string): Promise<boolean> => {
    this.refusal = await this.survey.record(what, title);
    return !this.refusal;
  };
}

export const spoken = (name: string): string => name.replaceAll('.', ' ');
