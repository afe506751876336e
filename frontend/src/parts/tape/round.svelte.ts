// The desk of a round of places and of what is turned between them. Set and Stance each give it their round and their turns.
import { practise } from './practised.svelte';
import {
  type AdjusterView,
  api,
  type AskView,
  type CarView,
  type Corner,
  type Quantity,
  type What,
} from '$lib/api/client';
import { cornerName, MARK_KINDS, QUANTITIES } from '$lib/kinds';
import type { Car } from '$lib/car.svelte';
import { hands } from '$lib/hands.svelte';
import { CORNER_WORDS } from '$lib/marks';
import { router } from '$lib/router.svelte';
import { DESK } from '../texts';
import { Desk, type Hook, type Meaning } from './desk.svelte';
import type { Typing } from './keys';
import { zeroOther } from './zero';

const AT_ONCE_MS = 150; // an answer later than this finds the builder's eye on the place already, which then stays

const TURNS = [0, 180, 90, 270] as const; // of a wheel, degrees
type Turn = (typeof TURNS)[number];

/** One thing to turn as told: whole turns or shims with their sign, said in words. */
export interface Told {
  adjuster: string;
  name: string;
  amount: number;
  say: string;
  caution: string;
  corner?: Corner;
  then?: string; // what would be read after it
  seen?: string; // which way round it goes, and seen from where
  clockwise?: boolean | null;
}

/** What a stage gives its desk: its address after /cars/NAME/, the places it asks, what may be turned at a corner, and what is told to be turned there. */
export interface Work {
  base: string;
  asks: (view: CarView, place: string[]) => AskView[];
  adjusters: (view: CarView, corner: Corner) => AdjusterView[];
  told: (view: CarView, corner: Corner) => Told[];
  lifted?: (view: CarView) => boolean; // what is told is one list for all corners, and stands on the server too
  allRound?: boolean; // what was turned moves all four corners, so reading begins at the first place, not at the corner in hand
}

/** A round with the pads before it that are gone to from elsewhere, in the way in which they are read: each by itself, or a level from one to the next. */
export const withPads = (view: CarView, round: AskView[], place: string[]): AskView[] =>
  round.some((a) => a.quantity === place[1]) ? round : [...view.pads.filter((a) => a.quantity === place[1]), ...round];

/** What was read last at a place, shown beside the field. */
export interface Latest {
  name: string;
  say: string;
  now: boolean;
}

export class RoundDesk extends Desk {
  // Frozen when turning begins: after the first of several turns the corner has moved, and the rest still stands as told.
  #told = $state.raw<Told[] | null>(null);
  #tools = $state.raw<Record<string, string>>({});

  #stringing = Promise.resolve(); // one change of the plan after the other, each of the plan as it then is
  #wheel = $state.raw<{ corner: Corner; turn: Turn } | null>(null); // how far round the wheel in hand was said to stand

  constructor(
    car: Car,
    readonly place: () => string[], // the address after that of the work
    readonly work: () => Work,
  ) {
    super(car);
  }

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
    if (at >= 0) return at;
    // A place that is not asked for any more: where the same is read at that corner now, else what is wanted first.
    const kinds = QUANTITIES[quantity as Quantity]?.marks ?? [];
    const instead = this.asks.findIndex(
      (a) => a.corner === corner && QUANTITIES[a.quantity].marks.some((k) => kinds.includes(k)),
    );
    const first = this.asks.findIndex((a) => this.wanted(a));
    return Math.max(instead >= 0 ? instead : first, 0);
  }

  /** Whether a place is to be read still: asked for, and not among what waits to be handed over. */
  wanted(ask: AskView): boolean {
    return ask.wanted && !this.car.pending.has(`${ask.corner}/${ask.quantity}`);
  }

  get ask(): AskView {
    return this.asks[this.index]!;
  }

  override get typing(): Typing {
    return this.turning ? 'turns' : QUANTITIES[this.ask.quantity].kind;
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
    const { measures, by_eye } = QUANTITIES[this.ask.quantity];
    const fitting = this.view.plan.tools.filter((t) => t.measures === measures).map(({ id, name }) => ({ id, name }));
    if (by_eye) fitting.push(DESK.eye);
    const id = this.#tools[this.ask.quantity] ?? this.ask.tool;
    return { id, name: fitting.find((t) => t.id === id)?.name ?? id, fitting };
  }

  /** Whether what is read here hangs on how the rim runs. */
  get runs(): boolean {
    return (
      QUANTITIES[this.ask.quantity].marks.some((k) => k === 'camber' || k === 'toe') &&
      QUANTITIES[this.ask.quantity].turned
    );
  }

  /** How far round the wheel in hand stands, degrees. */
  get wheel(): Turn {
    const { corner, quantity } = this.ask;
    const { next } = this.view;
    if (!this.runs) return 0;
    if (this.#wheel?.corner === corner) return this.#wheel.turn;
    return next.half && next.corner === corner && next.quantity === quantity ? 180 : 0;
  }

  /** The wheel stands at the next of its turns: half round first, which frees a mean of run-out; then a quarter, and three. */
  turnWheel(): void {
    if (this.turning || !this.runs) return;
    const turn = TURNS[(TURNS.indexOf(this.wheel) + 1) % TURNS.length]!;
    this.#wheel = { corner: this.ask.corner, turn };
    this.note = DESK.wheel[turn];
    this.askAnew();
  }

  /** The same as it is written down. */
  get #turned() {
    return { half_turn: this.wheel === 180, wheel_deg: this.wheel === 180 ? 0 : this.wheel };
  }

  nextTool(): void {
    const { fitting, id } = this.tool;
    const following = fitting[(fitting.findIndex((t) => t.id === id) + 1) % fitting.length];
    if (following) this.#tools = { ...this.#tools, [this.ask.quantity]: following.id };
    this.askAnew();
  }

  open(path: string): void {
    this.clear();
    router.go(`/cars/${this.car.slug}/${this.work().base}/${path}`);
  }

  openAsk(ask: AskView): void {
    this.open(`${ask.corner}/${ask.quantity}`);
  }

  step(by: 1 | -1): void {
    if (this.turning && this.#lifted) {
      const list = this.told.filter((t) => t.amount !== 0);
      const at = list.findIndex((t) => t.adjuster === this.adjuster?.id);
      const other = list[(at + by + list.length) % list.length];
      if (other?.corner) this.open(`${other.corner}/turn/${other.adjuster}`);
    } else if (this.turning) {
      const at = this.adjusters.findIndex((a) => a.id === this.adjuster?.id);
      const other = this.adjusters[(at + by + this.adjusters.length) % this.adjusters.length];
      if (other) this.open(`${this.corner}/turn/${other.id}`);
    } else this.openAsk(this.asks[(this.index + by + this.asks.length) % this.asks.length]!);
  }

  /** To the next place that is wanted after this one, else simply the next. */
  onward(from = this.index): void {
    const after = [...this.asks.slice(from + 1), ...this.asks.slice(0, from)];
    // While it is not known yet what a turn has moved, it is what stands at its corner; of a perch, at every corner.
    const here = this.work().allRound ? null : this.asks[from]?.corner;
    const moved = this.car.turning
      ? after.find(
          (a) =>
            (here === null || a.corner === here) &&
            QUANTITIES[a.quantity].turned &&
            !this.car.pending.has(`${a.corner}/${a.quantity}`),
        )
      : undefined;
    const next = moved ?? after.find((a) => this.wanted(a)) ?? after[0];
    if (next) this.openAsk(next);
  }

  startTurning(): void {
    if (!this.turning) this.#told = null;
    const first = this.told.find((t) => t.amount !== 0);
    this.open(`${first?.corner ?? this.corner}/turn/${first?.adjuster ?? this.adjusters[0]?.id ?? ''}`);
    if (!this.car.waiting.some((row) => !row.refusal)) return;
    // What is told goes by every reading: once the last is reckoned with it may be told elsewhere, and the eye goes there.
    const before = this.touched;
    void this.car.answered().then(() => {
      if (before === this.touched && this.turning && !this.amountTold && this.told.some((t) => t.amount !== 0))
        this.startTurning();
    });
  }

  /** What is told has come anew: it is what is told from now on, for as long as nothing of it was turned here. */
  toldAnew(): void {
    if (!this.car.turning) this.#told = null;
  }

  /** To an adjuster picked on the page, with what is told now. */
  openTurn(corner: Corner, adjuster: string): void {
    if (!this.turning) this.#told = null;
    this.open(`${corner}/turn/${adjuster}`);
  }

  /** Back to reading: at the place that is wanted first, at this corner before others. */
  startMeasuring(): void {
    this.#told = null;
    const { asks, corner } = this;
    const mine = asks.filter((a) => this.work().allRound || a.corner === corner);
    if (!this.car.turning)
      return this.openAsk(mine.find((a) => this.wanted(a)) ?? asks.find((a) => this.wanted(a)) ?? mine[0] ?? asks[0]!);
    // What a turn has moved is known with the answer to it. Until then the first place here that a turn can move.
    this.openAsk(mine.find((a) => QUANTITIES[a.quantity].turned) ?? asks[0]!);
    const [before, since] = [this.touched, performance.now()];
    void this.car.answered().then(() => {
      if (before === this.touched && performance.now() - since < AT_ONCE_MS) this.startMeasuring();
    });
  }

  protected look(what: What): Promise<Meaning> {
    return api.preview(this.car.slug, what);
  }

  protected what(typed: string): What {
    if (this.turning) return { kind: 'turned', version: 1, adjuster: this.adjuster?.id ?? '', typed };
    return {
      kind: 'reading',
      version: 1,
      corner: this.ask.corner,
      quantity: this.ask.quantity,
      typed,
      tool: this.tool.id,
      confirmed: false,
      ...this.#turned,
    };
  }

  /** Enter: record what is typed, at once; `again` stays at the place for a repeat. What becomes of it is told when the answer is there. */
  enter(again = false): void {
    const { told, turning, corner, index } = this;
    const suggested = turning ? (this.amountTold?.say ?? '') : '';
    const typed = this.typed.trim() || (again && !turning ? this.#lastTyped() : suggested);
    if (!typed) {
      if (!turning) this.onward();
      return;
    }
    const title = turning
      ? `${DESK.turned(CORNER_WORDS[corner], this.adjuster?.name ?? '')}: ${typed}`
      : `${this.ask.title}: ${typed}`;
    const adjuster = this.adjuster?.id;
    this.car.record(
      this.what(typed),
      title,
      turning ? this.place().join('/') : `${this.ask.corner}/${this.ask.quantity}`,
    );
    if (!turning) practise(this.ask.quantity);
    this.clear();
    this.keptNow(title);
    if (turning) {
      // The rest stands only where this was turned as told; a turn of one's own asks for new readings.
      this.#told = typed === suggested || this.#lifted ? told.filter((t) => t.adjuster !== adjuster) : [];
      if (typed !== suggested && this.#lifted) return this.#worked();
      const more = this.#told.find((t) => t.amount !== 0);
      if (more) this.open(`${more.corner ?? corner}/turn/${more.adjuster}`);
      else this.startMeasuring();
    } else if (!again) this.onward(index);
  }

  get #lifted(): boolean {
    return this.work().lifted?.(this.view) ?? false;
  }

  /** What is in hand goes no further: the rest is worked out anew around it. */
  stuck(): void {
    if (!this.turning || !this.adjuster) return;
    const { id, name } = this.adjuster;
    this.car.record(
      { kind: 'stuck', version: 1, adjuster: id, words: '' },
      DESK.stuck(CORNER_WORDS[this.corner], name),
    );
    this.clear();
    this.#worked();
  }

  /** On to what is told then, once what was written down has been reckoned with; not where the builder has gone on meanwhile. */
  #worked(): void {
    const before = this.touched;
    void this.car.answered().then(() => {
      this.#told = null;
      if (before !== this.touched || !this.turning) return;
      const next = this.told.find((t) => t.amount !== 0);
      if (next) this.open(`${next.corner ?? this.corner}/turn/${next.adjuster}`);
      else this.startMeasuring();
    });
  }

  /** The figure read last at this place, as it was typed. */
  #lastTyped(): string {
    const { corner, quantity } = this.ask;
    const here = this.car.waiting.findLast(
      ({ entry: { what }, refusal }) =>
        !refusal && what.kind === 'reading' && what.corner === corner && what.quantity === quantity,
    );
    return here?.entry.what.kind === 'reading' ? here.entry.what.typed : this.ask.latest_typed;
  }

  protected override reopen(path: string): void {
    this.open(path);
  }

  /** Read a kind of mark in another way from now on: a change of the plan; then to its first place. */
  async readBy(kind: string, way: string): Promise<void> {
    const { corner } = this;
    const from = this.place().join('/');
    this.clear();
    const read_by = { ...this.view.plan.ways.read_by, [kind]: way };
    await this.#changeWays({ read_by }, `${cornerName(kind, 'label')}: ${MARK_KINDS[kind]!.ways[way]}`);
    if (from !== this.place().join('/')) return; // the builder has gone on
    const first = this.asks.find((a) => a.corner === corner && QUANTITIES[a.quantity].marks.includes(kind));
    if (first) this.openAsk(first);
  }

  /** Another way of working from now on: a change of the plan; done when it is answered. */
  async #changeWays(changed: Partial<CarView['plan']['ways']>, words: string): Promise<void> {
    const { plan, plan_number: revises } = this.view;
    const ways = { ...plan.ways, ...changed };
    this.car.record({ kind: 'plan', version: 1, plan: { ...plan, ways }, revises, confirmed: false }, words);
    await this.car.answered();
  }

  settled(): void {
    this.touched++;
    this.car.record({ kind: 'happened', version: 1, what: 'settled', words: '', points: [] }, DESK.settled);
  }

  rezero(): void {
    const { zero } = this.ask;
    if (this.turning || !zero) return;
    this.touched++;
    zeroOther(this.car, zero);
  }

  /** How the car is held, the next of them: on a lift, on stands, or on its wheels again. */
  restand(): void {
    const { stands } = this.ask;
    if (this.turning || stands === null) return;
    this.touched++;
    const held = Object.keys(DESK.stands) as (keyof typeof DESK.stands)[];
    const how = held[(held.indexOf(stands as 'on a lift') + 1) % held.length]!;
    this.car.record({ kind: 'supported', version: 1, how }, DESK.stands[how]);
  }

  /** Whether the car was told to be held so that the floor decides nothing of the place in hand. */
  get offWheels(): boolean {
    const { stands } = this.ask;
    return stands !== null && stands !== 'on the jig' && stands !== 'on its wheels';
  }

  /** The key that says how the car is held, where that is not plain: before it has settled, or off its wheels. */
  get standHooks(): Hook[] {
    const { stands } = this.ask;
    if (stands === null || (this.view.condition.settled && !this.offWheels)) return [];
    const does = DESK.stands[stands as keyof typeof DESK.stands] ?? DESK.standsUnsaid;
    return [{ key: DESK.standsKey, does, act: () => this.restand() }];
  }

  /** What is to be said of the state of the car, or of what is used, before the place in hand is read; empty where nothing is. */
  get first(): string {
    const { stands, string } = this.ask;
    if (this.offWheels) return DESK.off(stands!, hands.touch);
    if (!this.view.condition.settled) return DESK.settleFirst(hands.touch);
    return string === '' ? DESK.stringUnsaid(hands.touch) : '';
  }

  /** What the strings rest on, the next of the three: a change of the plan, and only of one that nothing here waits to change. */
  restring(): void {
    if (this.turning || this.ask.string === null) return;
    this.touched++;
    this.#stringing = this.#stringing.then(() => this.#restrung());
  }

  async #restrung(): Promise<void> {
    const { string } = this.ask;
    if (string === null || this.car.waiting.some(({ entry }) => entry.what.kind === 'plan')) return;
    const rests = Object.keys(DESK.string) as (keyof typeof DESK.string)[];
    const strings_on = rests[(rests.indexOf(string as 'stands') + 1) % rests.length]!;
    await this.#changeWays({ strings_on }, `${DESK.strings} ${DESK.string[strings_on]}`);
  }

  protected openAgain(what: What): boolean {
    if (what.kind === 'reading') this.open(`${what.corner}/${what.quantity}`);
    else if (what.kind === 'turned') {
      const corner = this.view.plan.adjusters.find((a) => a.id === what.adjuster)?.corner ?? this.corner;
      this.open(`${corner}/turn/${what.adjuster}`);
    } else return false;
    return true;
  }

  /** Take the figure of the tool at the end of the line into the field; an answer that comes after another key says nothing any more. */
  async takeFigure(): Promise<void> {
    if (this.turning) return;
    const { corner, quantity } = this.ask;
    const before = ++this.touched;
    this.note = DESK.taking(this.tool.name);
    try {
      const { typed } = await api.take(this.car.slug, { corner, quantity, tool: this.tool.id, ...this.#turned });
      if (before === this.touched) this.type(typed);
    } catch (error) {
      if (before === this.touched) this.note = error instanceof Error ? error.message : String(error);
    }
  }

  protected letters(): Record<string, () => unknown> {
    return {
      t: () => this.startTurning(),
      b: () => this.stuck(),
      m: () => this.startMeasuring(),
      s: () => this.settled(),
      u: () => this.nextTool(),
      f: () => this.takeFigure(),
      h: () => this.turnWheel(),
      g: () => this.rezero(),
      l: () => this.restring(),
      w: () => this.restand(),
    };
  }

  /** The latest figures at places that are read together with the one in hand. */
  latest(together: (ask: AskView) => boolean, name: (ask: AskView) => string): Latest[] {
    return this.asks.filter(together).map((ask) => ({
      name: name(ask),
      say: ask.repeats ? `${ask.latest}${ask.repeats > 1 ? ` ×${ask.repeats}` : ''}${ask.wanted ? ' ?' : ''}` : '…',
      now: ask.corner === this.ask.corner && ask.quantity === this.ask.quantity,
    }));
  }
}
