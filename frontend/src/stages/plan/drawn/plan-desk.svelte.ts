// The desk of a plan that is given on its drawing: the same tape and keys as at every other stage; what is typed goes into the draft.
import { untrack } from 'svelte';
import { api, type Units } from '$lib/api/client';
import { allRead, readSoFar, reading, say } from '$lib/figures';
import type { Hook, Keeper, Meaning } from '$parts/tape/desk.svelte';
import { Desk } from '$parts/tape/desk.svelte';
import type { Typing } from '$parts/tape/keys';
import type { Sheet } from '../sheet.svelte';
import { DRAWN } from '../texts';
import { ALONE, type Also, type Chapter, type PlanAsk } from './ask';
import { asksOf } from './asks';

type Read = { typed: string; ask: PlanAsk };
interface Undo {
  path: string;
  back: () => void;
}
/** Whether all figures of a place stand in one line. */
const isRow = (ask: PlanAsk, typed: string) => ask.kind === 'place' && /[;\t]|,\s/.test(typed);
/** Whether what is asked belongs to a path of the plan: stands at it, below it, or is the aim of a pair of which the path names one. */
export const isAt = (ask: PlanAsk, path: string): boolean => {
  const [chapter, ...rest] = ask.path.split('.');
  const marks = rest.slice(0, -1).join('.').split('+');
  return ask.path === path || ask.path.startsWith(`${path}.`) || marks.some((mark) => `${chapter}.${mark}` === path);
};
const given = (ask: PlanAsk) => (ask.kind === 'words' ? ask.text !== '' : ask.value !== null);

export class PlanDesk extends Desk<Read, Keeper> {
  chapter = $state<Chapter>('dimensions');
  path = $state('wheelbase');
  apart = $state.raw<ReadonlySet<string>>(new Set());
  /** Figures that could not be read, by path: as they were typed, and why. */
  wrong = $state.raw<Readonly<Record<string, { typed: string; why: string }>>>({});
  said = $state.raw<Readonly<Record<string, string>>>({}); // every figure as it is printed, by path
  /** All that is asked, in walking order. */
  every = $derived.by(() => this.asked(this.sheet.draft, this.apart, this.sheet.layouts));
  #undo: Undo[] = [];
  #printed = new Map<string, string>(); // words by figure, kind and units: nothing is asked twice

  begun = false; // whether a place was opened

  constructor(
    readonly sheet: Sheet,
    private readonly asked: typeof asksOf = asksOf,
  ) {
    super({ refused: [], view: null, strike: () => undefined, discard: () => undefined, again: () => undefined });
    $effect(() => {
      const units = { ...sheet.draft.units } as Units;
      for (const ask of this.every)
        if (ask.value !== null && ask.kind !== 'words') this.#print(ask, [ask.value, ...ask.more], units);
    });
  }

  #print({ path, kind }: PlanAsk, values: number[], units: Units): void {
    const key = JSON.stringify([values, kind, units]);
    const tell = (words: string) => {
      if (untrack(() => this.said[path]) !== words) this.said = { ...untrack(() => this.said), [path]: words };
    };
    const known = this.#printed.get(key);
    if (known !== undefined) return tell(known);
    if (kind === 'number' || kind === 'words') return tell(String(values[0]));
    void Promise.all(values.map((value) => say(value, kind, units))).then((all) => {
      const words = all.join('; ');
      this.#printed.set(key, words);
      tell(words);
    });
  }

  get asks(): PlanAsk[] {
    return this.every.filter((a) => a.chapter === this.chapter);
  }

  /** What is asked now; where its place is gone, the first of the chapter, or of the plan. */
  get ask(): PlanAsk {
    return this.#at(this.path) ?? this.asks[0] ?? this.every[0]!;
  }

  override get typing(): Typing {
    const { kind } = this.ask;
    if (kind === 'words' || kind === 'mass') return kind;
    return kind === 'angle' || kind === 'toe' || kind === 'total_toe' ? 'angle' : 'length';
  }

  /** What Enter alone would take over. */
  get like(): string {
    const { like } = this.ask;
    return like && !given(this.ask) ? like.from : '';
  }

  shown(ask: PlanAsk): string {
    if (ask.kind === 'words') return ask.text;
    const loose = this.provisional(ask) ? `${DRAWN.roughly} ` : '';
    return this.wrong[ask.path]?.typed ?? (ask.value === null ? '' : `${loose}${this.said[ask.path] ?? ''}`);
  }

  /** The dimension that may be provisional: itself, or the point of which the figure in hand is one. */
  get #dimension(): string {
    const { path } = this.ask;
    const found = /^(wheelbase|(front|rear)\.\w+|(front|rear)_linkage\.loaded_radius|points\..+(?=\.\w+$))/.exec(path);
    return found?.[0] ?? '';
  }

  provisional(ask: PlanAsk): boolean {
    return this.sheet.draft.provisional.some((path) => ask.path === path || ask.path.startsWith(`${path}.`));
  }

  /** Not settled yet; or settled. */
  settle(): void {
    const path = this.#dimension;
    if (!path) return;
    const others = this.sheet.draft.provisional.filter((p) => p !== path);
    const was = others.length < this.sheet.draft.provisional.length;
    this.sheet.draft.provisional = was ? others : [...others, path];
    this.note = was ? DRAWN.settled : DRAWN.provisional;
  }

  open(path: string): void {
    const ask = this.#at(path);
    if (!ask) return;
    this.clear();
    this.begun = true;
    [this.chapter, this.path, this.note] = [ask.chapter, path, ''];
    const wrong = this.wrong[path];
    if (wrong?.why) [this.typed, this.refusal] = [wrong.typed, wrong.why]; // what is still being read is not in hand any more
  }

  /** The place of a problem that was found in the plan: the first that is not given there, else the first. */
  #ofProblem(path: string): PlanAsk | undefined {
    const plain = path.replace(/^what\.(plan\.)*/, '');
    const there = this.every.filter((a) => isAt(a, plain));
    return there.find((a) => a.path === plain) ?? there.find((a) => !given(a)) ?? there[0];
  }

  nameOf(path: string): string {
    return this.#ofProblem(path)?.title ?? '';
  }

  openAt(path: string): void {
    const ask = this.#ofProblem(path);
    if (ask) this.open(ask.path);
  }

  turnTo(chapter: Chapter): void {
    this.chapter = chapter;
    const first = this.asks.find((a) => !given(a) && !a.optional) ?? this.asks.find((a) => !given(a)) ?? this.asks[0];
    if (first) this.open(first.path);
    else this.clear();
  }

  step(by: 1 | -1): void {
    const asks = this.asks.length ? this.asks : this.every;
    const at = asks.indexOf(this.ask);
    this.open(asks[(at + by + asks.length) % asks.length]!.path);
  }

  /** To the next figure that is wanted still, in this chapter or the one after it; a place that was just named is asked for first. */
  #onward(past = ''): void {
    const { every } = this;
    const at = past
      ? every.findLastIndex((a) => a.group === past && a.kind === 'place')
      : every.findIndex((a) => a.path === this.path);
    if (at < 0) return this.turnTo(this.chapter); // it was a choice, and others are asked in its place
    const before = every[at - 1];
    const named =
      /\.more$/.test(this.path) && before && !given(before) && !this.#beingRead(before.group) ? before.group : null;
    const next = named
      ? every.find((a) => a.group === named)
      : every.slice(at + 1).find((a) => !given(a) && !this.wrong[a.path]);
    this.open((next ?? every[at + 1] ?? every[0]!).path);
  }

  /** Whether a figure of what is asked together is on its way, all three of a place in one line among them. */
  #beingRead(group: string): boolean {
    return this.every.some((a) => a.group === group && this.wrong[a.path]);
  }

  /** The same on the other side; or left and right are wanted unlike, or alike again. */
  sides(): void {
    const { pair, twin, path } = this.ask;
    if (twin) {
      this.note = DRAWN.twinGiven;
      void reading(readSoFar().then(() => this.#at(path)?.twin?.()));
      return;
    }
    if (!pair) return;
    const next = new Set(this.apart);
    if (!next.delete(pair)) next.add(pair);
    this.apart = next;
    if (!this.#at(path)) this.open(this.every.find((a) => a.pair === pair)?.path ?? path);
  }

  protected what(typed: string): Read {
    return { typed, ask: this.ask };
  }

  #units(): Units {
    return { ...this.sheet.draft.units } as Units;
  }

  protected async look({ typed, ask }: Read): Promise<Meaning> {
    if (ask.kind === 'number' || ask.kind === 'words') return { said: typed, means: ask.title };
    const found = await api.read(typed, ask.kind, this.#units(), ask.spans);
    const said =
      ask.kind === 'place' || ask.kind === 'lengths' ? found.said : await say(found.value, ask.kind, this.#units());
    return { said: found.echo || said, means: ask.title };
  }

  /** What could not be read at a place is forgotten. */
  #letGo(path: string): void {
    const { [path]: _, ...others } = this.wrong;
    this.wrong = others;
  }

  #put(ask: PlanAsk, value: number | null, typed: string, also: Also = ALONE): void {
    const back = ask.saved?.() ?? (() => ask.put(ask.value, ask.text, ALONE));
    this.#undo.push({ path: ask.path, back });
    ask.put(value, typed, also);
    this.#letGo(ask.path);
  }

  /** Enter: what is typed goes into the plan, read by the server; Enter alone takes over what is alike, or goes on. */
  enter(): void {
    const { ask } = this;
    const typed = this.typed.trim();
    if (!typed) {
      this.#letGo(ask.path);
      // What is alike may itself be on its way still.
      if (Object.values(this.wrong).some((w) => !w.why)) void reading(readSoFar().then(() => this.#takeLike(ask.path)));
      else this.#takeLike(ask.path);
      return this.#onward();
    }
    if (ask.kind === 'words') {
      try {
        this.#put(ask, null, typed);
      } catch (error) {
        this.#undo.pop();
        return void (this.refusal = (error as Error).message);
      }
      this.#onward();
      return this.keptNow(`${ask.title}: ${typed}`);
    }
    this.wrong = { ...this.wrong, [ask.path]: { typed, why: '' } }; // shown as typed until it is read
    this.#onward(isRow(ask, typed) ? ask.group : '');
    this.keptNow(`${ask.title}: ${typed}`);
    void reading(this.#take(ask, typed, this.#units()));
  }

  #at(path: string): PlanAsk | undefined {
    return this.every.find((a) => a.path === path);
  }

  #takeLike(path: string): void {
    const ask = this.#at(path);
    if (ask?.like && !given(ask) && !this.wrong[path])
      this.#put(ask, ask.like.value, ask.like.text ?? '', ask.like.also);
  }

  async #take(ask: PlanAsk, typed: string, units: Units): Promise<void> {
    try {
      const found =
        ask.kind === 'number'
          ? { ...ALONE, value: Number(typed.replace(',', '.')), echo: '' }
          : await api.read(typed, ask.kind as 'length', units, ask.spans);
      if (!Number.isFinite(found.value)) throw new Error(DRAWN.noNumber(typed));
      if (this.wrong[ask.path]?.typed !== typed) return;
      const now = this.#at(ask.path) ?? ask; // beside it other figures of the place may have come
      this.#put(now, found.value, found.echo ? typed : '', found); // words of a toe are kept where they say more than degrees
      if (found.pitch !== null && given(this.ask) && this.ask.group === ask.group && !this.typed) this.#onward();
    } catch (error) {
      this.wrong = { ...this.wrong, [ask.path]: { typed, why: (error as Error).message } };
      this.note = ''; // it was not taken after all
      if (!this.typed) this.open(ask.path);
    }
  }

  /** Keep the plan: nothing is kept while a figure stands there that could not be read, for it would be missing, and nobody told. */
  async keep(): Promise<void> {
    await allRead();
    const unread = Object.keys(this.wrong).find((path) => this.wrong[path]?.why);
    if (unread === undefined && !this.typed.trim()) return this.sheet.keep();
    this.sheet.sentence = unread === undefined ? DRAWN.stillTyped : DRAWN.unread;
    if (unread !== undefined) this.open(unread);
  }

  /** Take back the figure given last: one that is still being read is given up, and nothing is put down when it has been. */
  override strike(): void {
    const onItsWay = Object.keys(this.wrong).findLast((path) => !this.wrong[path]!.why);
    const given = onItsWay && this.#at(onItsWay);
    if (given) {
      this.#letGo(given.path);
      this.open(given.path);
      return void (this.note = DRAWN.takenBack(given.title));
    }
    const last = this.#undo.pop();
    const ask = last && this.#at(last.path);
    if (!last || !ask) return void (this.note = DRAWN.nothingBack);
    last.back();
    this.open(last.path);
    this.note = DRAWN.takenBack(ask.title);
  }

  protected openAgain(): boolean {
    return false;
  }

  protected letters(): Record<string, () => unknown> {
    return this.ask.kind === 'words' ? {} : { b: () => this.sides(), v: () => this.settle() };
  }

  get hooks(): Hook[] {
    const { pair, twin, kind } = this.ask;
    const sides = twin ? DRAWN.twin : this.apart.has(pair) ? DRAWN.alike : DRAWN.unlike;
    return [
      { key: 'Enter', does: this.like || DRAWN.next, act: () => this.enter() },
      { key: '↓ ↑', does: DRAWN.skip, hand: DRAWN.skipHand, act: () => this.step(1) },
      { key: '⌫', does: DRAWN.strike, act: () => this.strike() },
      ...(this.#dimension
        ? [
            {
              key: 'V',
              does: this.provisional(this.ask) ? DRAWN.isSettled : DRAWN.isProvisional,
              hand: this.provisional(this.ask) ? DRAWN.isSettled : DRAWN.provisionalHand,
              act: () => this.settle(),
            },
          ]
        : []),
      ...((pair || twin) && kind !== 'words' ? [{ key: 'B', does: sides, act: () => this.sides() }] : []),
    ];
  }
}
