// The desk behind every tape: what is typed, what it would mean, what was refused; recording at once, striking out, keys.
// Stages say what a figure is (`what`), how it is looked at before it is recorded (`look`), and where the eye goes next.
import { type MarkWord, type Plan, Refused, type What } from '$lib/api/client';
import type { Car } from '$lib/car.svelte';
import { hands } from '$lib/hands.svelte';
import type { Waiting } from '$lib/outbox.svelte';
import { DESK } from '../texts';
import type { Typing } from './keys';

const MOMENT_MS = 5000; // for which it is said that something was kept
const PAUSE_MS = 25; // between the last key and asking what it would mean

/** What a figure would come to if it were recorded. */
export interface Meaning {
  said: string;
  means: string;
  large?: string;
  state?: MarkWord | null;
  caution?: string;
}
/** A key, what it does, and doing it. */
export interface Hook {
  key: string;
  does: string;
  act?: () => void;
  hand?: string; // what it does, as short as a key of the tape needs it
}

/** What keeps the entries of a desk: a car, or for a plan that is still a draft nothing. */
export interface Keeper {
  readonly refused: Waiting[];
  readonly view: { plan: { units: Plan['units'] } } | null;
  strike: (title: string) => { title: string; path: string } | null | undefined;
  putBack?: (title: string) => { title: string } | null;
  readonly struck?: readonly unknown[];
  readonly away?: boolean; // whether what is kept waits for the server
  discard: (id: string) => unknown;
  again: (row: Waiting) => void;
}

export abstract class Desk<W = What, C extends Keeper = Car> {
  typed = $state('');
  /** What is typed here: which keys a hand wants. */
  get typing(): Typing {
    return 'length';
  }
  preview = $state.raw<Meaning | null>(null);
  refusal = $state(''); // of what is typed now, before it is recorded
  note = $state('');
  marked = $state(false); // what stands in the field was put back to be typed again: the first key takes its place
  protected touched = 0; // counts keys and moves, so that an answer can tell that it came before any
  #timer = 0;
  #asked = 0;

  constructor(readonly car: C) {}

  /** What would be recorded; null while it is not whole. */
  protected abstract what(typed: string): W | null;
  protected abstract look(what: W): Promise<Meaning>;
  /** Enter: record what is typed; `again` stays at the place for a repeat. */
  abstract enter(again?: boolean): void;
  abstract step(by: 1 | -1): void;
  /** To the place of an entry that was refused; false where this desk has none for it. */
  protected abstract openAgain(what: What): boolean;
  /** What else the keys of letters do at an empty field. */
  protected abstract letters(): Record<string, () => unknown>;

  get means(): string {
    return this.preview ? `${this.preview.said} · ${this.preview.means}` : '';
  }

  /** What the server would not take, the earliest first. */
  get refused(): Waiting[] {
    return this.car.refused;
  }

  clear(): void {
    [this.typed, this.preview, this.refusal, this.marked] = ['', null, '', false];
    this.touched++;
    this.#asked++; // an answer about what stood there says nothing of what will
    clearTimeout(this.#timer);
  }

  type(text: string): void {
    [this.typed, this.refusal, this.note, this.marked] = [text, '', '', false];
    this.touched++;
    this.askAnew();
  }

  /** Ask once more what the figure would mean: it changed, or how it is read. */
  askAnew(): void {
    clearTimeout(this.#timer);
    const mine = ++this.#asked;
    const what = this.typed.trim() ? this.what(this.typed) : null;
    if (!what) return void (this.preview = null);
    this.#timer = window.setTimeout(async () => {
      try {
        const found = await this.look(what);
        if (mine === this.#asked) [this.preview, this.refusal] = [found, ''];
      } catch (error) {
        if (mine === this.#asked) [this.preview, this.refusal] = [null, error instanceof Refused ? error.message : ''];
      }
    }, PAUSE_MS);
  }

  /** Say for a moment what was written down, where it is being looked at; what is refused says so itself, and stays. */
  protected keptNow(what: string): void {
    const { away } = this.car;
    const words = (this.note = away === undefined ? DESK.taken(what) : DESK.kept(what, away));
    setTimeout(() => this.note === words && (this.note = ''), MOMENT_MS);
  }

  strike(): void {
    const struck = this.car.strike(DESK.strike);
    this.touched++;
    if (!struck) return void (this.note = DESK.nothingStruck);
    this.note = DESK.struck(struck.title, hands.touch);
    if (struck.path) this.reopen(struck.path);
  }

  /** Take the last strike back. */
  putBack(): void {
    const back = this.car.putBack?.(DESK.putBack);
    this.touched++;
    if (back) this.keptNow(back.title);
  }

  /** To a place where something was recorded and struck out again. */
  protected reopen(_path: string): void {}

  /** Take a refused entry back to its place, with what was typed in the field. */
  retype(row: Waiting): void {
    const { what } = row.entry;
    this.car.discard(row.entry.id);
    if (!this.openAgain(what) || !('typed' in what) || typeof what.typed !== 'string') return;
    this.type(what.typed);
    this.marked = true;
  }

  again(row: Waiting): void {
    this.car.again(row);
  }

  discard(row: Waiting): void {
    this.car.discard(row.entry.id);
  }

  /** Keys that mean something at an empty field; figures never begin with a letter. True where the key was taken. */
  key(key: string): boolean {
    if (this.typed) return false;
    const row = this.refused[0];
    const does: Record<string, () => unknown> = {
      Backspace: () => this.strike(),
      ...(this.car.struck?.length ? { z: () => this.putBack() } : {}),
      ...this.letters(),
      ...(row ? { r: () => this.retype(row), k: () => this.again(row), x: () => this.discard(row) } : {}),
    };
    const act = does[key.length === 1 ? key.toLowerCase() : key];
    act?.();
    return act !== undefined;
  }
}
