// Entries made in this browser and not yet acknowledged, in order, in storage that outlives the page.
import type { EntryIn } from './api/client';

export interface Waiting {
  entry: EntryIn;
  refusal: string; // the server's sentence where it would not take the entry; empty while it only waits
  title: string;
}

const key = (slug: string) => `ready-corner/outbox/${slug}`;

export function waiting(slug: string): Waiting[] {
  return JSON.parse(localStorage.getItem(key(slug)) ?? '[]') as Waiting[];
}

function keep(slug: string, rows: Waiting[]): void {
  localStorage.setItem(key(slug), JSON.stringify(rows));
}

// Each change reads the store again first: another tab may have handed entries over meanwhile.
export function add(slug: string, entry: EntryIn, title: string): void {
  keep(slug, [...waiting(slug), { entry, refusal: '', title }]);
}

export function drop(slug: string, id: string): void {
  keep(slug, waiting(slug).filter((row) => row.entry.id !== id));
}

export function refuse(slug: string, id: string, refusal: string): void {
  keep(slug, waiting(slug).map((row) => (row.entry.id === id ? { ...row, refusal } : row)));
}
