// One car in this browser: the last view of it, what waits to be handed over, and recording.
import { api, Away, Refused, type CarView, type EntryIn, type Problem, type What } from './api/client';
import * as outbox from './outbox';

const RETRY_MS = 1500;
const shelf = (slug: string) => `ready-corner/view/${slug}`;

/** How an entry fared: taken by the server, kept here until it is back, or refused with a sentence. */
export type Fate = { fate: 'taken' } | { fate: 'kept' } | { fate: 'refused'; code: string; sentence: string; problems: Problem[] };

export function who(): string {
  return localStorage.getItem('ready-corner/who') ?? '';
}

export function newEntry(what: What): EntryIn {
  return { id: crypto.randomUUID(), at: new Date().toISOString(), who: who(), what };
}

export class Car {
  view = $state.raw<CarView | null>(null);
  waiting = $state.raw<outbox.Waiting[]>([]);
  away = $state(false);
  missing = $state('');
  last = $state(''); // entry id of what was recorded last, for striking it out
  #flushing: Promise<void> | null = null;
  #timer = 0;

  constructor(readonly slug: string) {
    const kept = localStorage.getItem(shelf(slug));
    if (kept) this.view = JSON.parse(kept) as CarView;
    this.waiting = outbox.waiting(slug);
    void this.refresh();
  }

  async refresh(): Promise<void> {
    try {
      await this.flush();
      this.#show(await api.car(this.slug));
      this.away = false;
    } catch (error) {
      if (error instanceof Refused && error.status === 404) this.missing = error.message;
      else this.#isAway();
    }
  }

  /** Record an entry: it is in the outbox before anything is sent, and leaves it only when acknowledged. */
  async record(what: What, title: string): Promise<Fate> {
    const entry = newEntry(what);
    outbox.add(this.slug, entry, title);
    this.waiting = outbox.waiting(this.slug);
    this.last = entry.id;
    await this.flush();
    const row = this.waiting.find((w) => w.entry.id === entry.id);
    if (!row) return { fate: 'taken' };
    if (!row.refusal) return { fate: 'kept' };
    this.discard(entry.id); // the field still holds what was typed, with the sentence beside it
    return { fate: 'refused', ...this.#why, sentence: row.refusal };
  }

  discard(id: string): void {
    outbox.drop(this.slug, id);
    this.waiting = outbox.waiting(this.slug);
  }

  /** Hand over what waits, in order, one at a time. */
  flush(): Promise<void> {
    this.#flushing ??= this.#handOver().finally(() => (this.#flushing = null));
    return this.#flushing.then(() => (outbox.waiting(this.slug).some((w) => !w.refusal) && !this.away ? this.flush() : undefined));
  }

  stop(): void {
    clearTimeout(this.#timer);
  }

  #why: { code: string; problems: Problem[] } = { code: '', problems: [] };

  async #handOver(): Promise<void> {
    const rows = outbox.waiting(this.slug).filter((w) => !w.refusal);
    for (const { entry } of rows) {
      try {
        const { car } = await api.record(this.slug, entry);
        outbox.drop(this.slug, entry.id);
        this.#show(car);
      } catch (error) {
        if (error instanceof Refused) {
          this.#why = { code: error.code, problems: error.problems };
          outbox.refuse(this.slug, entry.id, error.message);
        } else {
          this.#isAway();
          return;
        }
      } finally {
        this.waiting = outbox.waiting(this.slug);
      }
    }
    if (rows.length) this.away = false; // only now: with some handed over and some not, the server is not yet back for the builder
  }

  #show(view: CarView): void {
    this.view = view;
    localStorage.setItem(shelf(this.slug), JSON.stringify(view));
  }

  #isAway(): void {
    this.away = true;
    clearTimeout(this.#timer);
    this.#timer = window.setTimeout(() => void this.refresh(), RETRY_MS);
  }
}

export { Away, Refused };
