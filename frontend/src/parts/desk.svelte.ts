// What the tape is doing: which place or adjuster is asked, what is typed, what it would mean. Set and Stance each give it their round and their turns.
import { type AdjusterView, api, type AskView, type CarView, type Corner, type PreviewView, Refused, type What } from '$lib/api/client';
import type { Car } from '$lib/car.svelte';
import { CORNER_WORDS } from '$lib/marks';
import { router } from '$lib/router.svelte';
import { DESK } from './texts';

const PAUSE_MS = 40; // between the last key and asking what it would mean

/** One thing to turn as told: whole turns or shims with their sign, said in words. */
export interface Told { adjuster: string; name: string; amount: number; say: string; caution: string; corner?: Corner }

/** What a stage gives its desk: its address after /cars/NAME/, the places it asks, what may be turned at a corner, and what is told to be turned there. */
export interface Work {
  base: string;
  asks: (view: CarView, place: string[]) => AskView[];
  adjusters: (view: CarView, corner: Corner) => AdjusterView[];
  told: (view: CarView, corner: Corner) => Told[];
  allRound?: boolean; // what was turned moves all four corners, so reading begins at the first place, not at the corner in hand
}

export class Desk {
  typed = $state('');
  preview = $state.raw<PreviewView | null>(null);
  refusal = $state('');
  unusual = $state(false);
  note = $state('');
  // Frozen when turning begins: after the first of several turns the corner has moved, and the rest still stands as told.
  #told = $state.raw<Told[] | null>(null);
  #tools = $state.raw<Record<string, string>>({});
  #timer = 0;
  #asked = 0;
  #busy: Promise<void> = Promise.resolve();

  constructor(
    readonly car: Car,
    readonly place: () => string[], // the address after that of the work
    readonly work: () => Work,
  ) {}

  get view() {
    if (!this.car.view) throw new Error('the desk needs a car that has been loaded');
    return this.car.view;
  }

  get asks(): AskView[] {
    return this.work().asks(this.view, this.place());
  }

  get index(): number {
    const [corner, quantity] = this.place();
    const at = this.asks.findIndex((a) => a.corner === corner && a.quantity === quantity);
    return at >= 0 ? at : Math.max(this.asks.findIndex((a) => a.wanted), 0);
  }

  get ask(): AskView {
    return this.asks[this.index]!;
  }

  get turning(): boolean {
    return this.place()[1] === 'turn';
  }

  get corner(): Corner {
    const [corner] = this.place();
    return this.turning ? (corner as Corner) : this.ask.corner;
  }

  get adjusters() {
    return this.work().adjusters(this.view, this.corner);
  }

  get adjuster() {
    return this.adjusters.find((a) => a.id === this.place()[2]) ?? this.adjusters[0];
  }

  get told(): Told[] {
    return this.#told ?? this.work().told(this.view, this.corner);
  }

  get amountTold() {
    return this.told.find((t) => t.adjuster === this.adjuster?.id && t.amount !== 0);
  }

  get tool() {
    const measures = this.ask.quantity === 'camber' ? 'angle' : this.ask.quantity === 'load' ? 'mass' : 'length';
    const fitting = this.view.plan.tools.filter((t) => t.measures === measures);
    const id = this.#tools[this.ask.quantity] ?? this.ask.tool;
    return { id, name: fitting.find((t) => t.id === id)?.name ?? id, fitting };
  }

  nextTool(): void {
    const { fitting, id } = this.tool;
    const following = fitting[(fitting.findIndex((t) => t.id === id) + 1) % fitting.length];
    if (following) this.#tools = { ...this.#tools, [this.ask.quantity]: following.id };
    this.ask_();
  }

  open(path: string): void {
    this.clear();
    router.go(`/cars/${this.car.slug}/${this.work().base}/${path}`);
  }

  openAsk(ask: AskView): void {
    this.open(`${ask.corner}/${ask.quantity}`);
  }

  step(by: 1 | -1): void {
    if (this.turning) {
      const at = this.adjusters.findIndex((a) => a.id === this.adjuster?.id);
      const other = this.adjusters[(at + by + this.adjusters.length) % this.adjusters.length];
      if (other) this.open(`${this.corner}/turn/${other.id}`);
    } else this.openAsk(this.asks[(this.index + by + this.asks.length) % this.asks.length]!);
  }

  /** To the next place that is wanted after this one, else simply the next. */
  onward(from = this.index): void {
    const after = [...this.asks.slice(from + 1), ...this.asks.slice(0, from)];
    const next = after.find((a) => a.wanted) ?? after[0];
    if (next) this.openAsk(next);
  }

  startTurning(): void {
    if (!this.turning) this.#told = null;
    const first = this.told.find((t) => t.amount !== 0);
    this.open(`${first?.corner ?? this.corner}/turn/${first?.adjuster ?? this.adjusters[0]?.id ?? ''}`);
  }

  /** To an adjuster picked on the page, with what is told now. */
  openTurn(corner: Corner, adjuster: string): void {
    if (!this.turning) this.#told = null;
    this.open(`${corner}/turn/${adjuster}`);
  }

  startMeasuring(): void {
    this.#told = null;
    const asks = this.asks;
    this.openAsk(asks.find((a) => (this.work().allRound || a.corner === this.corner) && a.wanted) ?? asks.find((a) => a.wanted) ?? asks.find((a) => a.corner === this.corner)!);
  }

  clear(): void {
    this.typed = '';
    this.preview = null;
    this.refusal = '';
    this.unusual = false;
    this.#forget();
  }

  #forget(): void {
    this.#asked++;
    clearTimeout(this.#timer);
  }

  type(text: string): void {
    this.typed = text;
    this.unusual = false;
    this.refusal = '';
    this.note = '';
    this.ask_();
  }

  private ask_(): void {
    clearTimeout(this.#timer);
    const mine = ++this.#asked;
    if (!this.typed.trim()) {
      this.preview = null;
      return;
    }
    this.#timer = window.setTimeout(async () => {
      try {
        const found = await api.preview(this.car.slug, this.#what(this.typed));
        if (mine === this.#asked) [this.preview, this.refusal] = [found, ''];
      } catch (error) {
        if (mine === this.#asked) [this.preview, this.refusal] = [null, error instanceof Refused ? error.message : ''];
      }
    }, PAUSE_MS);
  }

  #what(typed: string): What {
    if (this.turning) return { kind: 'turned', version: 1, adjuster: this.adjuster?.id ?? '', typed };
    return { kind: 'reading', version: 1, corner: this.ask.corner, quantity: this.ask.quantity, typed, tool: this.tool.id, confirmed: this.unusual };
  }

  /** Enter: record what is typed; `again` stays at the place for a repeat. One after the other, however fast the keys come. */
  enter(again = false): Promise<void> {
    this.#busy = this.#busy.then(() => this.#enter(again));
    return this.#busy;
  }

  async #enter(again: boolean): Promise<void> {
    const told = this.told;
    const suggested = this.turning ? (this.amountTold?.say ?? '') : '';
    const typed = this.typed.trim() || (again && !this.turning ? this.ask.latest : suggested);
    if (!typed) {
      if (!this.turning) this.onward();
      return;
    }
    const title = this.turning ? DESK.turnTitle(CORNER_WORDS[this.corner], this.adjuster?.name ?? '') : `${this.ask.title}: ${typed}`;
    const [corner, wasTurning, adjuster, from] = [this.corner, this.turning, this.adjuster?.id, this.index];
    const result = await this.car.record(this.#what(typed), title);
    if (result.fate === 'refused') {
      this.#forget(); // a preview asked before the refusal came must not cover it
      this.preview = null;
      this.refusal = result.sentence;
      this.unusual = result.code === 'unusual_value';
      return;
    }
    this.note = result.fate === 'kept' ? DESK.kept : '';
    this.clear();
    if (wasTurning) {
      // The rest stands only where this was turned as told; a turn of one's own asks for new readings.
      this.#told = typed === suggested ? told.filter((t) => t.adjuster !== adjuster) : [];
      const more = this.#told.find((t) => t.amount !== 0);
      if (more) this.open(`${more.corner ?? corner}/turn/${more.adjuster}`);
      else this.startMeasuring();
    } else if (!again) this.onward(from);
  }

  async strike(): Promise<void> {
    const last = this.view.last;
    const id = this.car.last || last?.id;
    if (!id) return;
    const result = await this.car.record({ kind: 'correction', version: 1, strikes: id, reason: '' }, DESK.strike);
    this.car.last = '';
    if (result.fate === 'refused') this.refusal = result.sentence;
    else {
      this.note = last && last.id === id ? `Struck out: ${last.sentence}` : DESK.strike;
      if (last?.corner && last.quantity && last.id === id) this.open(`${last.corner}/${last.quantity}`);
    }
  }

  async settled(): Promise<void> {
    await this.car.record({ kind: 'happened', version: 1, what: 'settled', words: '', points: [] }, DESK.settled);
  }

  /** Keys that mean something at an empty field; figures never begin with a letter. True where the key was taken. */
  key(key: string): boolean {
    if (this.typed) return false;
    const does: Record<string, () => unknown> = {
      t: () => this.startTurning(),
      m: () => this.startMeasuring(),
      s: () => this.settled(),
      u: () => this.nextTool(),
      Backspace: () => this.strike(),
    };
    const act = does[key.length === 1 ? key.toLowerCase() : key];
    if (act) void act();
    return act !== undefined;
  }
}
