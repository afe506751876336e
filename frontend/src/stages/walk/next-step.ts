// Where the one thing to do next is done, or what is recorded when it was.
import type { CarView } from '$lib/api/client';

const SAID = { settle: 'settled', reconnect: 'bar_on', disconnect: 'bar_off' } as const;
const PAGES = { state: 'stance', plan: 'plan', done: 'log' } as const;

/** What is recorded when it was done; nothing where it is done on a page. */
export const happeningOf = ({ kind }: CarView['next']) => (kind in SAID ? SAID[kind as keyof typeof SAID] : null);

/** The page of it, after /cars/NAME/. */
export function pageOf(view: CarView): string {
  const { kind, corner, quantity } = view.next;
  if (kind in PAGES) return PAGES[kind as keyof typeof PAGES];
  if (!corner) return 'set';
  const next = view.lift?.stops
    .flatMap((s) => s.turns.map((t) => ({ ...t, corner: s.corner })))
    .find((t) => t.left !== 0);
  if (kind === 'lift' && next) return `set/${next.corner}/turn/${next.adjuster}`;
  if (kind === 'perch' || kind === 'turn' || kind === 'try') {
    const { adjusters, turns } = view.corners[corner];
    const perch = kind === 'perch' ? adjusters.find((a) => a.raises) : undefined;
    if (perch) return `stance/floor/${corner}/turn/${perch.id}`;
    const first = turns.find((t) => t.amount !== 0)?.adjuster ?? adjusters.find((a) => !a.raises)?.id;
    if (first) return `set/${corner}/turn/${first}`;
  }
  if (quantity === 'load') return `stance/floor/${corner}/load`;
  return `set/${corner}/${quantity ?? 'height'}`;
}
