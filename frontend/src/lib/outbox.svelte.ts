// Entries made in this browser and not yet acknowledged. Adding one is done at once; keeping it on the shelf and handing it over follow.
//
// One shelf (IndexedDB) for all tabs: each add, refusal and removal is a transaction of its own, so none is lost to another tab. Until it is on
// the shelf an entry stands in the browser's small storage, written in the same breath as it is made: a page may be left in that moment, and the shelf
// may be full or forbidden; from there it is shown and handed over as well. One tab at a time hands over the entries of a car, in the order in which
// they were made. The server keeps an entry sent twice once.
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { api, Away, type CarView, type EntryIn, type Problem, Refused } from './api/client';
import { forget, keep, kept, keysOf } from './shelf';

/** Why the server would not take an entry. */
export interface Refusal {
  status: number;
  code: string;
  sentence: string;
  problems: Problem[];
}

export interface Waiting {
  slug: string;
  entry: EntryIn;
  title: string;
  refusal: Refusal | null;
}

/** A car that is open in this page: what is known of it, and how it is shown. */
interface Open {
  known: () => CarView | null;
  shown: (view: CarView) => void;
}

interface Shelf extends DBSchema {
  waiting: { key: number; value: Waiting; indexes: { id: string } };
}

const RETRY_MS = 1500;
const SHELF_PATIENCE_MS = 1000; // a shelf that does not answer must not keep an entry from the server
const JUST_MADE = 'ready-corner/just-made/'; // entries on their way to the shelf, each by when it was made
const EARLIER = 'ready-corner/outbox/'; // where the first versions kept them, a list for each car

class Outbox {
  rows = $state.raw<Waiting[]>([]); // of all cars, in the order in which they were made
  away = $state(false);
  where = $state<'shelf' | 'small' | 'nowhere'>('shelf'); // what waits is kept; nowhere: in this page alone
  readonly ready: Promise<void>;
  #shelf: Promise<IDBPDatabase<Shelf> | null>;
  #writes: Promise<void> = Promise.resolve();
  #gone = new Set<string>();
  #marked = new Map<string, Refusal | null>(); // marks that are not on the shelf yet: what is read from it meanwhile is older
  #running = new Map<string, Promise<void>>();
  #cars = new Map<string, Open>();
  #again = new Set<() => void>();
  #tabs: BroadcastChannel | null = null;
  #timer = 0;
  #made = 0;

  constructor() {
    this.#shelf = this.#open();
    this.ready = this.#look();
    try {
      this.#tabs = new BroadcastChannel('ready-corner/outbox');
      // What another tab has written down is handed over by whichever comes first: that tab may be closed by then.
      this.#tabs.onmessage = () => void this.#look().then(() => this.handOverAll());
    } catch {
      // no other tab can be told; each looks at the shelf again before it hands over
    }
  }

  of(slug: string): Waiting[] {
    return this.rows.filter((row) => row.slug === slug);
  }

  add(slug: string, entry: EntryIn, title: string): void {
    const row: Waiting = { slug, entry, title, refusal: null };
    const key = `${JUST_MADE}${entry.at} ${String(++this.#made).padStart(6, '0')} ${entry.id}`;
    const otherwise = keep(key, row) ? 'small' : 'nowhere';
    this.rows = [...this.rows, row];
    void this.#queue(async (shelf) => {
      await put(shelf, [row]);
      forget(key);
    }, otherwise);
  }

  drop(id: string): void {
    this.#gone.add(id);
    small()
      .filter(({ row }) => row.entry.id === id)
      .forEach(({ taken }) => taken());
    this.rows = this.rows.filter((row) => row.entry.id !== id);
    void this.#queue(async (shelf) => {
      const change = shelf.transaction('waiting', 'readwrite');
      const key = await change.store.index('id').getKey(id);
      if (key !== undefined) await change.store.delete(key);
      await change.done;
    });
  }

  /** Let a refused entry be sent once more. */
  retry(id: string): void {
    this.#mark(id, null);
    const row = this.rows.find((r) => r.entry.id === id);
    if (row) void this.handOver(row.slug);
  }

  /** Hand over what waits for a car, in order, one at a time; done when nothing is left to send, or the server is away. */
  handOver(slug: string): Promise<void> {
    const now = this.#running.get(slug) ?? this.#locked(slug).finally(() => this.#running.delete(slug));
    this.#running.set(slug, now);
    return now.then(() => (this.#next(slug) && !this.away ? this.handOver(slug) : undefined));
  }

  /** Hand over for every car. */
  async handOverAll(): Promise<void> {
    await this.ready;
    for (const slug of new Set(this.rows.map((row) => row.slug))) await this.handOver(slug);
  }

  /** Show the car that the server answers with to whoever has it open. */
  show(slug: string, open: Open): () => void {
    this.#cars.set(slug, open);
    return () => void this.#cars.delete(slug);
  }

  /** Call again while the server is away; returns how to stop that. */
  whileAway(again: () => void): () => void {
    this.#again.add(again);
    return () => void this.#again.delete(again);
  }

  isAway(): void {
    this.away = true;
    clearTimeout(this.#timer);
    this.#timer = window.setTimeout(() => {
      void this.handOverAll().then(() => this.#again.forEach((again) => again()));
    }, RETRY_MS);
  }

  isBack(): void {
    this.away = false;
  }

  #next(slug: string): Waiting | undefined {
    return this.rows.find((row) => row.slug === slug && !row.refusal);
  }

  async #locked(slug: string): Promise<void> {
    const work = () => this.#send(slug);
    await ('locks' in navigator ? navigator.locks.request(`ready-corner/${slug}`, work) : work());
  }

  async #send(slug: string): Promise<void> {
    const patience = new Promise<void>((done) => setTimeout(done, SHELF_PATIENCE_MS));
    await Promise.race([this.#look(), patience]); // what this page has just added is on the shelf, and what other tabs did is seen
    for (let row = this.#next(slug); row; row = this.#next(slug)) {
      try {
        const open = this.#cars.get(slug);
        const car = await api.record(slug, row.entry, open?.known() ?? null);
        open?.shown(car);
        this.drop(row.entry.id);
      } catch (error) {
        if (error instanceof Away) return this.isAway();
        this.#refuse(row, error instanceof Refused ? error : new Refused(0, 'fault', String(error), []));
      }
    }
    this.isBack();
  }

  #refuse(row: Waiting, { status, code, message, problems }: Refused): void {
    this.#mark(row.entry.id, { status, code, sentence: message, problems });
    // What was to strike it out has nothing to strike out any more.
    for (const other of this.rows) {
      const { what } = other.entry;
      if (what.kind === 'correction' && what.strikes === row.entry.id) this.drop(other.entry.id);
    }
  }

  #mark(id: string, refusal: Refusal | null): void {
    this.rows = this.rows.map((row) => (row.entry.id === id ? { ...row, refusal } : row));
    this.#marked.set(id, refusal);
    void this.#queue(async (shelf) => {
      const mark = this.#marked.get(id);
      if (mark === undefined) return;
      const change = shelf.transaction('waiting', 'readwrite');
      const at = await change.store.index('id').openCursor(id);
      if (at) await at.update({ ...at.value, refusal: mark });
      await change.done;
      if (this.#marked.get(id) === mark) this.#marked.delete(id);
    });
  }

  async #open(): Promise<IDBPDatabase<Shelf> | null> {
    try {
      return await openDB<Shelf>('ready-corner', 1, {
        upgrade: (shelf) =>
          void shelf
            .createObjectStore('waiting', { autoIncrement: true })
            .createIndex('id', 'entry.id', { unique: true }),
      });
    } catch {
      const probe = `${JUST_MADE}?`;
      this.where = keep(probe, 0) ? 'small' : 'nowhere';
      forget(probe);
      return null;
    }
  }

  /** Do one thing with the shelf after all that came before it; where that fails, say where it is kept ``otherwise``, if it is to be kept. */
  #queue(work: (shelf: IDBPDatabase<Shelf>) => Promise<void>, otherwise?: 'small' | 'nowhere'): Promise<void> {
    return this.#after(async (shelf) => {
      try {
        if (!shelf) throw new Error('no shelf');
        await work(shelf);
        if (otherwise) this.where = 'shelf';
      } catch {
        if (otherwise) this.where = otherwise;
      }
      this.#tabs?.postMessage('changed');
    });
  }

  /** See what is on the shelf, after all that was begun before. */
  #look(): Promise<void> {
    return this.#after((shelf) => this.#load(shelf).catch(() => {}));
  }

  #after(work: (shelf: IDBPDatabase<Shelf> | null) => Promise<void>): Promise<void> {
    this.#writes = this.#writes.then(async () => work(await this.#shelf));
    return this.#writes;
  }

  async #load(shelf: IDBPDatabase<Shelf> | null): Promise<void> {
    if (shelf && !(await takeUp(shelf))) this.where = 'small';
    const shelved = shelf ? await shelf.getAll('waiting').catch(() => null) : null;
    const beside = small().map(({ row }) => row);
    // A shelf that cannot be looked at takes nothing away.
    const there = [...(shelved ?? this.rows), ...beside].filter(
      (row, i, all) => !this.#gone.has(row.entry.id) && all.findIndex((other) => other.entry.id === row.entry.id) === i,
    );
    const on = there.map((row) => ({
      ...row,
      refusal: this.#marked.has(row.entry.id) ? (this.#marked.get(row.entry.id) ?? null) : row.refusal,
    }));
    const known = new Set(on.map((row) => row.entry.id));
    // What is neither on the shelf nor beside it is here only where it could not be put there; the rest was handed over by another tab.
    const mine = this.rows.filter((row) => !known.has(row.entry.id) && !this.#seen.has(row.entry.id));
    known.forEach((id) => this.#seen.add(id));
    this.rows = [...on, ...mine];
  }
  #seen = new Set<string>(); // ids that were on the shelf
}

/** Put entries on the shelf that are not there. */
async function put(shelf: IDBPDatabase<Shelf>, rows: Waiting[]): Promise<void> {
  const change = shelf.transaction('waiting', 'readwrite');
  for (const row of rows)
    if (!(await change.store.index('id').getKey(row.entry.id))) await change.store.add({ ...row });
  await change.done;
}

/** What stands in the small storage, oldest first: what did not get on the shelf before its page was left, or could not, and what the first versions
 * kept as lists; each with how it is taken away from there. */
function small(): { row: Waiting; taken: () => void }[] {
  const lists = keysOf(EARLIER).flatMap((key) => {
    const list = kept<{ entry: EntryIn; title: string }[]>(key) ?? [];
    return list.map(({ entry, title }) => ({
      row: { slug: key.slice(EARLIER.length), entry, title, refusal: null },
      taken: () => {
        const rest = (kept<typeof list>(key) ?? []).filter((other) => other.entry.id !== entry.id);
        if (!rest.length || !keep(key, rest)) forget(key);
      },
    }));
  });
  const made = keysOf(JUST_MADE)
    .sort()
    .flatMap((key) => {
      const row = kept<Waiting>(key);
      return row?.entry ? [{ row, taken: () => forget(key) }] : [];
    });
  return [...lists, ...made];
}

/** Put on the shelf what stands in the small storage; what the shelf does not take stays there, and false is returned. */
async function takeUp(shelf: IDBPDatabase<Shelf>): Promise<boolean> {
  for (const { row, taken } of small())
    try {
      await put(shelf, [row]);
      taken();
    } catch {
      return false;
    }
  return true;
}

export const outbox = new Outbox();
