// The desk of a plan that is given on its drawing: the same tape and keys as at every other stage; what is typed goes into the draft.
import { api, type Units } from '$lib/api/client';
import { reading, say } from '$lib/figures';
import type { Hook, Keeper, Meaning } from '$parts/tape/desk.svelte';
import { Desk } from '$parts/tape/desk.svelte';
import type { Typing } from '$parts/tape/keys';
import type { Sheet } from '../sheet.svelte';
import { DRAWN } from '../texts';
import { asksOf, type Chapter, type PlanAsk } from './asks';

type Read = { typed: string; ask: PlanAsk };
interface Undo {
  path: string;
  value: number | null;
}

export class PlanDesk extends Desk<Read, Keeper> {
  chapter = $state<Chapter>('dimensions');
  path = $state('wheelbase');
  apart = $state.raw<ReadonlySet<string>>(new Set());
  /** Figures that could not be read, by path: as they were typed, and why. */
  wrong = $state.raw<Readonly<Record<string, { typed: string; why: string }>>>({});
  said = $state.raw<Readonly<Record<string, string>>>({}); // every figure as it is printed, by path
  #undo: Undo[] = [];
  #printed = '';

  constructor(readonly sheet: Sheet) {
    super({ refused: [], view: null, strike: () => undefined, discard: () => undefined, again: () => undefined });
    $effect(() => {
      const units = { ...sheet.draft.units } as Units;
      const rows = this.every.filter((a) => a.value !== null).map((a) => [a.path, a.value!, a.kind] as const);
      const printed = JSON.stringify([units, rows]);
      if (printed === this.#printed) return;
      this.#printed = printed;
      for (const [path, value, kind] of rows)
        void (kind === 'number' ? Promise.resolve(String(value)) : say(value, kind, units)).then(
          (words) => (this.said = { ...this.said, [path]: words }),
        );
    });
  }

  get every(): PlanAsk[] {
    return asksOf(this.sheet.draft, this.apart);
  }

  get asks(): PlanAsk[] {
    return this.every.filter((a) => a.chapter === this.chapter);
  }

  get index(): number {
    return Math.max(
      this.asks.findIndex((a) => a.path === this.path),
      0,
    );
  }

  get ask(): PlanAsk {
    return this.asks[this.index]!;
  }

  override get typing(): Typing {
    const { kind } = this.ask;
    return kind === 'angle' || kind === 'toe' || kind === 'total_toe' ? 'angle' : 'length';
  }

  /** What Enter alone would take over. */
  get like(): string {
    const { like } = this.ask;
    return like && this.ask.value === null ? like.from : '';
  }

  shown(ask: PlanAsk): string {
    return this.wrong[ask.path]?.typed ?? (ask.value === null ? '' : (this.said[ask.path] ?? ''));
  }

  open(path: string): void {
    const ask = this.every.find((a) => a.path === path);
    if (!ask) return;
    this.clear();
    [this.chapter, this.path, this.note] = [ask.chapter, path, ''];
    const wrong = this.wrong[path];
    if (wrong) [this.typed, this.refusal] = [wrong.typed, wrong.why];
  }

  turnTo(chapter: Chapter): void {
    this.chapter = chapter;
    const first = this.asks.find((a) => a.value === null) ?? this.asks[0];
    if (first) this.open(first.path);
  }

  step(by: 1 | -1): void {
    const { asks } = this;
    this.open(asks[(this.index + by + asks.length) % asks.length]!.path);
  }

  /** To the next figure that is wanted still, in this chapter or the one after it. */
  #onward(): void {
    const { every } = this;
    const at = every.findIndex((a) => a.path === this.path);
    const next = every.slice(at + 1).find((a) => a.value === null && !this.wrong[a.path]) ?? every[at + 1] ?? every[0]!;
    this.open(next.path);
  }

  /** Left and right of an axle are wanted unlike, or alike again. */
  sides(): void {
    const found = /^aims\.([LR])([FR])\.(\w+)/.exec(this.ask.path);
    if (!found) return;
    const key = `${found[2] === 'F' ? 'front' : 'rear'}.${found[3]}`;
    const next = new Set(this.apart);
    if (!next.delete(key)) next.add(key);
    this.apart = next;
    this.open(this.every.find((a) => a.path.startsWith(`aims.L${found[2]}.${found[3]}`))?.path ?? this.path);
  }

  protected what(typed: string): Read {
    return { typed, ask: this.ask };
  }

  #units(): Units {
    return { ...this.sheet.draft.units } as Units;
  }

  protected async look({ typed, ask }: Read): Promise<Meaning> {
    if (ask.kind === 'number') return { said: typed, means: ask.title };
    const found = await api.read(typed, ask.kind, this.#units(), ask.spans);
    return { said: found.echo || (await say(found.value, ask.kind, this.#units())), means: ask.title };
  }

  /** What could not be read at a place is forgotten. */
  #letGo(path: string): void {
    const { [path]: _, ...others } = this.wrong;
    this.wrong = others;
  }

  #put(ask: PlanAsk, value: number | null, typed: string): void {
    this.#undo.push({ path: ask.path, value: ask.value });
    ask.put(value, typed);
    this.#letGo(ask.path);
  }

  /** Enter: what is typed goes into the plan, read by the server; Enter alone takes over what is alike, or goes on. */
  enter(): void {
    const { ask } = this;
    const typed = this.typed.trim();
    if (!typed) {
      this.#letGo(ask.path);
      if (ask.value === null && ask.like) this.#put(ask, ask.like.value, '');
      return this.#onward();
    }
    const units = this.#units();
    this.wrong = { ...this.wrong, [ask.path]: { typed, why: '' } }; // shown as typed until it is read
    this.#onward();
    void reading(
      (async () => {
        try {
          const value =
            ask.kind === 'number'
              ? Number(typed.replace(',', '.'))
              : (await api.read(typed, ask.kind, units, ask.spans)).value;
          if (!Number.isFinite(value)) throw new Error(DRAWN.noNumber(typed));
          if (this.wrong[ask.path]?.typed === typed) this.#put(ask, value, typed);
        } catch (error) {
          this.wrong = { ...this.wrong, [ask.path]: { typed, why: (error as Error).message } };
          if (!this.typed) this.open(ask.path);
        }
      })(),
    );
  }

  /** Take back the figure given last. */
  override strike(): void {
    const last = this.#undo.pop();
    const ask = last && this.every.find((a) => a.path === last.path);
    if (!last || !ask) return void (this.note = DRAWN.nothingBack);
    ask.put(last.value, '');
    this.open(last.path);
    this.note = DRAWN.takenBack(ask.title);
  }

  protected openAgain(): boolean {
    return false;
  }

  protected letters(): Record<string, () => unknown> {
    return { b: () => this.sides() };
  }

  get hooks(): Hook[] {
    const apart = /^aims\.[LR][FR]\./.test(this.ask.path);
    return [
      { key: 'Enter', does: this.like || DRAWN.next, act: () => this.enter() },
      { key: '↓ ↑', does: DRAWN.skip, hand: DRAWN.skipHand, act: () => this.step(1) },
      { key: '⌫', does: DRAWN.strike, act: () => this.strike() },
      ...(apart
        ? [{ key: 'B', does: this.ask.path.includes('+') ? DRAWN.unlike : DRAWN.alike, act: () => this.sides() }]
        : []),
    ];
  }
}
