// The points of one end while they are given: which are needed, where each stands in the draft, examples and pasted rows.
import { api, type Layout, type Linkage, Refused } from '$lib/api/client';
import type { Draft, End } from './draft';
import { newLinkage, namedBy } from './linkage-parts';
import type { Sheet } from './sheet.svelte';

const BOX = ['box.first', 'box.second', 'box.arm', 'idler.first', 'idler.second', 'idler.arm'];

/** What the points of an end are named under: a corner, or the end itself where an axle joins its wheels. */
export const prefixOf = (layout: Layout | undefined, end: End): string =>
  layout?.axle ? end : end === 'front' ? 'LF' : 'LR';

export interface PointNames {
  needed: string[];
  box: string[];
  more: string[];
}

/** Names asked for, without their corner: what the layout needs, what a steering box needs, and what else was given or is named by a part. */
export function namesOf(draft: Draft, layout: Layout | undefined, end: End): PointNames {
  const linkage = draft.linkages[end];
  const prefix = prefixOf(layout, end);
  const steered = linkage && linkage.steering !== 'none' ? (layout?.steered ?? []) : [];
  const needed = [...(layout?.needed ?? []), ...steered].filter(
    (n) => !layout!.axle || (!n.startsWith('right.') && !n.includes('.right.')),
  );
  const box = linkage?.steering === 'box' ? BOX : [];
  const given = Object.keys(draft.points)
    .filter((n) => n.startsWith(`${prefix}.`))
    .map((n) => n.slice(prefix.length + 1));
  const named = linkage ? namedBy(linkage).filter((n) => !layout?.axle || !n.split('.').includes('right')) : [];
  const more = new Set([...named, ...given]);
  return { needed, box, more: [...more].filter((n) => !needed.includes(n) && !box.includes(n)) };
}

export class LinkagePoints {
  end = $state<End>('front');
  lit = $state('');
  refusal = $state('');

  constructor(readonly sheet: Sheet) {}

  get linkage(): Linkage | null {
    return this.sheet.draft.linkages[this.end];
  }

  get layout(): Layout | undefined {
    return this.sheet.layout(this.end);
  }

  get prefix(): string {
    return prefixOf(this.layout, this.end);
  }

  get names(): PointNames {
    return namesOf(this.sheet.draft, this.layout, this.end);
  }

  /** Name of a point in the plan; those of a steering box belong to the end, not to one of its corners. */
  key(name: string): string {
    return /^(box|idler)\./.test(name) ? `${this.end}.${name}` : `${this.prefix}.${name}`;
  }

  get problems(): string[] {
    const { needed, box, more } = this.names;
    return [...needed, ...box, ...more].map((n) => this.sheet.at(`points.${this.key(n)}`)).filter(Boolean);
  }

  value(name: string, axis: number): number | null {
    return this.sheet.draft.points[this.key(name)]?.[axis] ?? null;
  }

  set(name: string, axis: number, value: number | null): void {
    const { points } = this.sheet.draft;
    const place = [...(points[this.key(name)] ?? [null, null, null])] as [number | null, number | null, number | null];
    place[axis] = value;
    if (place.every((v) => v === null)) delete points[this.key(name)];
    else points[this.key(name)] = place;
  }

  /** Choose a layout; the one that is chosen is taken away. */
  choose(name: Layout['name']): void {
    const { linkages } = this.sheet.draft;
    const { linkage, end } = this;
    if (linkage?.layout === name) linkages[end] = null;
    else if (linkage) linkage.layout = name;
    else linkages[end] = newLinkage(name, end);
  }

  async example(): Promise<void> {
    const { layout, end, prefix } = this;
    const { draft } = this.sheet;
    if (!layout) return;
    const found = await api.example(layout.name, end);
    const along = end === 'front' ? 0 : -(draft.wheelbase ?? 0);
    draft.linkages[end] = found.linkage;
    for (const [name, [x, y, z]] of Object.entries(found.points)) draft.points[`${prefix}.${name}`] = [x + along, y, z];
    // The wheel stands where track and wheelbase put it.
    const wheel = layout.axle ? `${prefix}.left.wheel` : `${prefix}.wheel`;
    const [place, track] = [draft.points[wheel], draft[end].track];
    if (place && track) draft.points[wheel] = [along, track / 2, place[2]];
  }

  /** Take points pasted from a spreadsheet; true where all were taken. */
  async take(text: string): Promise<boolean> {
    this.refusal = '';
    try {
      Object.assign(this.sheet.draft.points, await api.points(text, this.sheet.draft.units));
      return true;
    } catch (error) {
      this.refusal =
        error instanceof Refused
          ? error.problems.map((p) => `${p.path}: ${p.sentence}`).join(' ') || error.message
          : (error as Error).message;
      return false;
    }
  }
}
