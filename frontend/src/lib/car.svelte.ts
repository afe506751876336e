// One car in this browser: the last view of it, and recording, which never waits for an answer.
import { newId } from './new-id';
import { api, type CarView, type EntryIn, type Latest, Refused, type What } from './api/client';
import { news } from './news';
import { outbox, type Refusal, type Waiting } from './outbox.svelte';
import { keep, kept, who } from './shelf';

const NEWS_MS = 1500; // between two questions whether somebody else has recorded something, where the server sends no news
const shelf = (slug: string) => `ready-corner/view/${slug}`;
const seenAt = (slug: string) => `ready-corner/seen/${slug}`;

/** How an entry fared: taken by the server, kept here until it is back, or refused with a sentence. */
export type Fate = { fate: 'taken' } | { fate: 'kept' } | ({ fate: 'refused' } & Refusal);

/** What was recorded in this page last, for striking it out with one key. */
interface Recent {
  id: string;
  title: string;
  path: string; // where it was asked, after /cars/NAME/
}

export function newEntry(what: What): EntryIn {
  return { id: newId(), at: new Date().toISOString(), who: who(), what };
}

/** Do something again and again, one after another, until stopped. */
function every(ms: number, does: () => Promise<void>): () => void {
  let timer = 0;
  let over = false;
  const again = () => (timer = window.setTimeout(() => void does().finally(() => over || again()), ms));
  again();
  return () => ((over = true), clearTimeout(timer));
}

export class Car {
  view = $state.raw<CarView | null>(null);
  missing = $state('');
  ahead = $state.raw<Readonly<Record<string, number>>>({}); // share of the stages that no entry tells of by itself
  recent = $state.raw<Recent[]>([]);
  struck = $state.raw<(Recent & { by: string })[]>([]); // here, each by its correction
  /** What this browser saw of the car last, before it was opened now: its last line, and when. */
  seen = $state.raw<{ number: number; at: number } | null>(null);
  #stops: (() => void)[];
  #told: Latest | null = null;

  constructor(readonly slug: string) {
    this.view = kept<CarView>(shelf(slug));
    this.seen = kept(seenAt(slug));
    this.#stops = [
      outbox.show(slug, { known: () => this.view, shown: (view) => this.#show(view) }),
      outbox.whileAway(() => void this.refresh()),
      every(NEWS_MS, () => this.#hear()),
      news.hear(() => void this.#hear()),
    ];
    void this.refresh(true);
  }

  get waiting(): Waiting[] {
    return outbox.of(this.slug);
  }

  get refused(): Waiting[] {
    return this.waiting.filter((row) => row.refusal);
  }

  get away(): boolean {
    return outbox.away;
  }

  /** Places that were read here and not handed over yet. */
  get pending(): Set<string> {
    const places = this.waiting.flatMap(({ entry: { what }, refusal }) =>
      what.kind === 'reading' && !refusal ? [`${what.corner}/${what.quantity}`] : [],
    );
    return new Set(places);
  }

  /** Whether something was turned here that the server has not answered yet. */
  get turning(): boolean {
    return this.waiting.some((row) => row.entry.what.kind === 'turned' && !row.refusal);
  }

  async refresh(first = false): Promise<void> {
    await outbox.ready;
    await outbox.handOver(this.slug);
    try {
      const view = await api.car(this.slug);
      this.missing = '';
      this.#show(view, first);
      outbox.isBack();
    } catch (error) {
      if (error instanceof Refused && error.status === 404) this.missing = error.message;
      else outbox.isAway();
    }
  }

  /** Record an entry: it waits in this browser from now on, and is handed over behind the builder's back. Returns its identity. */
  record(what: What, title: string, path = ''): string {
    const entry = newEntry(what);
    outbox.add(this.slug, entry, title);
    if (what.kind !== 'correction') this.recent = [...this.recent, { id: entry.id, title, path }];
    void outbox.handOver(this.slug);
    return entry.id;
  }

  /** Done when the server has answered to everything that waits, or is away. */
  answered(): Promise<void> {
    return outbox.handOver(this.slug);
  }

  /** Record an entry from a form that keeps what was filled in until it is taken. A refusal goes back to the form. */
  async ask(what: What, title: string): Promise<Fate> {
    const id = this.record(what, title);
    await outbox.handOver(this.slug);
    const row = this.waiting.find((w) => w.entry.id === id);
    if (!row) return { fate: 'taken' };
    if (!row.refusal) return { fate: 'kept' };
    this.discard(id);
    return { fate: 'refused', ...row.refusal };
  }

  discard(id: string): void {
    outbox.drop(id);
    this.recent = this.recent.filter((r) => r.id !== id);
  }

  /** Send a refused entry again: as it is, or confirmed, as a line of its own. */
  again(row: Waiting): void {
    if (row.refusal?.code !== 'unusual_value') return outbox.retry(row.entry.id);
    this.discard(row.entry.id);
    this.record({ ...row.entry.what, confirmed: true } as What, row.title);
  }

  /** Strike out what was recorded last on this page, and nothing that was there before it was opened; returns what that was, if there is anything. */
  strike(title: string): Recent | null {
    const mine = this.recent.at(-1);
    if (!mine) return null;
    this.recent = this.recent.slice(0, -1);
    if (this.refused.some((row) => row.entry.id === mine.id)) {
      outbox.drop(mine.id);
      return mine;
    }
    const by = this.record({ kind: 'correction', version: 1, strikes: mine.id, reason: '' }, title);
    this.struck = [...this.struck, { ...mine, by }];
    return mine;
  }

  /** Take the last strike of this page back: what it struck counts again; returns what that is, if there is anything. */
  putBack(title: string): Recent | null {
    const last = this.struck.at(-1);
    if (!last) return null;
    const { by, ...mine } = last;
    this.struck = this.struck.slice(0, -1);
    this.recent = [...this.recent, mine];
    this.record({ kind: 'correction', version: 1, strikes: by, reason: '' }, title);
    return mine;
  }

  stop(): void {
    this.#stops.forEach((stop) => stop());
  }

  /** Ask how far the log has come, where no news tell it, or they tell of more than is known. Nothing is asked while something of one's own waits,
   * or nobody looks. */
  async #hear(): Promise<void> {
    if (document.hidden || this.away || this.waiting.length || !this.view) return;
    const [told, number] = [this.#told?.number ?? 0, news.of(this.slug)];
    if (news.live && told && number <= told && told <= this.view.number) return;
    await this.#heard({ number, progress: this.ahead });
    try {
      await this.#heard((this.#told = await api.latest(this.slug)));
    } catch {
      // the outbox tells when the server is away
    }
  }

  /** Somebody else has recorded something: look at the car anew. While something of one's own waits, the answer to that brings it. */
  async #heard(told: Latest): Promise<void> {
    const { number, progress } = told; // what cannot be looked at just now is looked at a little later
    if (JSON.stringify(progress) !== JSON.stringify(this.ahead)) this.ahead = progress;
    if (!this.view || number <= this.view.number || this.waiting.length || this.away) return;
    const view = await api.car(this.slug).catch(() => null); // the outbox tells when the server is away
    if (view && !this.waiting.length) this.#show(view);
  }

  /** An answer that was overtaken by a later one shows nothing. */
  #show(view: CarView, first = false): void {
    if (!first && this.view && view.number < this.view.number) return;
    this.view = view;
    keep(seenAt(this.slug), { number: view.number, at: Date.now() });
    keep(shelf(this.slug), view);
  }
}
