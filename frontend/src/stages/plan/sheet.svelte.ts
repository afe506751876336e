// A plan while it is given: the draft, what is wrong with it, what it was begun from; and keeping it.
import { getContext, setContext, untrack } from 'svelte';
import {
  api,
  Away,
  type CarLine,
  type Layout,
  type Plan,
  type Problem,
  Refused,
  type Wanting,
  type What,
} from '$lib/api/client';
import { until } from '$lib/api/until';
import { type Car, newEntry } from '$lib/car.svelte';
import { allRead } from '$lib/figures';
import { kindsAt } from '$lib/kinds';
import { CORNERS } from '$lib/marks';
import { openAround } from '$parts/form/chapters';
import { router } from '$lib/router.svelte';
import { draftOf, type End, MISSING, planOf, roughOut, upToDate } from './draft';
import { draftAt, dropDraft, type KeptDraft, keepDraft } from './drafts';
import { laidOn } from './merge';
import { PLAN } from './texts';

const SAVE_MS = 120; // after the last change
const WEIGH_MS = 500;
const STILL_GIVEN = new Set(['check.point-wanted', 'check.stands-on-nothing']); // not said before somebody would keep it
const MARGINS = [5, (3 / 16) * 25.4]; // mm; what the bump stop comes before the ground by, in either system
export const ENDS = ['front', 'rear'] as const;

export class Sheet {
  draft = $state(draftOf(null));
  problems = $state.raw<Problem[]>([]);
  sentence = $state('');
  unusual = $state(false); // asked about once; sent again, it is kept
  #doubted = '';
  told = $state(''); // the plan of which was said what it makes of what was read
  shown = $state<'running' | 'build'>('running'); // which of the two tables of aims is shown
  layouts = $state.raw<Layout[]>([]);
  wanting = $state.raw<Wanting[]>([]);
  purposes = $state.raw<Record<string, Plan['aims']>>({});
  others = $state.raw<CarLine[]>([]); // cars whose plan a new one may take over
  found = $state.raw<KeptDraft | null>(null); // a draft that was in this browser already
  older = $state(false); // it was begun from an earlier plan
  unkept = $state(false); // storage is refused or full
  overtaken = $state(0); // the entry with which somebody else has revised the plan while this draft was given
  #start = ''; // the draft as the plan has it: nothing is kept of what is not changed
  #saving = 0;
  before = $state.raw<Plan | null>(null);
  #revises: number;
  readonly #beginning = newEntry({ kind: 'note', version: 1, words: 'a' }).id; // one identity, however often it is sent
  #base: Plan | null; // the plan this one was begun from: what the form does not show is taken over from it

  /** Where to once it is kept. */
  kept = (slug: string): void => router.go(`/cars/${slug}`);

  constructor(readonly car: Car | undefined) {
    this.before = this.#base = car?.view?.plan ?? null;
    this.#revises = car?.view?.plan_number ?? 0;
    this.draft = draftOf(this.before);
    this.shown = this.draft.stage;
    this.#start = this.#told();
    void this.#look();
    $effect(() => this.#watch(car?.view?.plan_number ?? 0));
    $effect(() => {
      const now = this.#told();
      clearTimeout(this.#saving);
      if (now !== this.#start) this.#saving = window.setTimeout(() => void this.#save(), SAVE_MS);
    });
    $effect(() => () => void this.leave());
    $effect(() => until(api.layouts, (found) => (this.layouts = found)));
    $effect(() => {
      if (!this.#told()) return;
      let stop = () => {};
      const timer = setTimeout(() => (stop = this.#weigh()), WEIGH_MS);
      return () => (clearTimeout(timer), stop());
    });
    $effect(() => (car ? undefined : until(api.cars, (found) => (this.others = found))));
    $effect(() => this.#begin(this.inches));
    $effect(() => {
      const [front, rear, inches] = [this.layoutOf('front'), this.layoutOf('rear'), this.inches];
      return until(
        () => api.purposes(front, rear, inches),
        (found) => (this.purposes = found),
      );
    });
  }

  /** What a builder has given: not the tools and margins that come from the table where a plan has none. */
  #told(): string {
    const { tools, units: _, footing, ...given } = $state.snapshot(this.draft);
    return JSON.stringify([given, { ...footing, margin: 0 }, this.#base?.tools.length ? tools : []]);
  }

  /** Say what the plan leaves open as it is just now, and what in it contradicts itself; nothing of one that is not whole yet. */
  #weigh(): () => void {
    const made = planOf($state.snapshot(this.draft), this.#base);
    if (this.problems[0]?.kind === MISSING) {
      // What was missing when somebody would have kept it, and is given now, is not asked for any more.
      const still = 'problems' in made ? made.problems.map((p) => p.path) : [];
      this.problems = this.problems.filter((p) => still.includes(p.path));
      this.sentence = this.problems.length ? PLAN.stillMissing(this.problems.length) : '';
    }
    if ('problems' in made) return this.#doubt();
    const plan = { ...made.plan, name: made.plan.name || PLAN.begin };
    const say = (problems: Problem[]) => {
      if (this.sentence) return; // what keeping it was refused for stands until it is tried again
      this.problems = problems.filter((p) => /^(check|plan)\./.test(p.kind) && !STILL_GIVEN.has(p.kind));
    };
    return until(
      () => api.wanting(plan),
      (found) => ((this.wanting = found), say([])),
      (_, error) => say(error instanceof Refused ? error.problems : []),
    );
  }

  /** Ask about figures that are hardly meant while others are not given yet: what is missing is taken roughly meanwhile, and nothing is said of that. */
  #doubt(): () => void {
    const draft = $state.snapshot(this.draft) as typeof this.draft;
    const rough = roughOut(draft);
    const made = planOf({ ...draft, name: draft.name || PLAN.begin }, this.#base);
    if ('problems' in made) return () => {};
    return until(
      () => api.wanting(made.plan),
      (found) => (this.wanting = found.filter((row) => row.stage === 'Plan' && !rough.includes(row.path))),
    );
  }

  /** What of the plan is hardly meant, as it is just now. */
  get doubts(): Wanting[] {
    return this.wanting.filter((row) => row.stage === 'Plan');
  }

  /** A plan that somebody else has revised is shown as it is now; one that was given on meanwhile stays, and is asked about. */
  #watch(latest: number): void {
    untrack(() => {
      if (latest <= this.#revises) return;
      if (this.#told() === this.#start) this.layOnLatest();
      else this.overtaken = latest;
    });
  }

  /** Take what was changed here over to the plan as it is now, figure by figure. */
  layOnLatest(): void {
    const view = this.car?.view;
    if (!view) return;
    const [was, mine, now] = [
      draftOf(this.#base),
      $state.snapshot(this.draft) as typeof this.draft,
      draftOf(view.plan),
    ];
    this.before = this.#base = view.plan;
    this.#revises = view.plan_number;
    this.draft = now;
    this.#start = this.#told();
    this.draft = laidOn(was, mine, now);
    [this.overtaken, this.sentence, this.told] = [0, '', ''];
  }

  get #key(): string {
    return this.car?.slug ?? '';
  }

  /** A draft that was left here before: taken up where it was begun from this very plan, else asked about. */
  async #look(): Promise<void> {
    const kept = await draftAt(this.#key);
    if (!kept) return;
    this.older = kept.revises !== this.#revises;
    if (!this.older && this.#told() !== this.#start) return; // typed meanwhile: that goes before
    this.found = kept;
    if (!this.older) this.takeUp();
  }

  takeUp(): void {
    if (!this.found) return;
    const { draft, was } = structuredClone(this.found);
    const now = draftOf(this.#base);
    this.draft = upToDate(this.older && was ? laidOn(was, draft, now) : { ...now, ...draft });
    this.older = false;
  }

  async #save(): Promise<void> {
    if (this.older) return; // what is there is asked about still
    const draft = $state.snapshot(this.draft) as typeof this.draft;
    const was = draftOf(this.#base);
    this.unkept = !(await keepDraft(this.#key, { revises: this.#revises, draft, was, at: Date.now() }));
  }

  /** Whoever goes elsewhere leaves the draft as it is, with what is still being read. */
  async leave(): Promise<void> {
    await allRead();
    clearTimeout(this.#saving);
    if (this.#told() !== this.#start) await this.#save();
  }

  /** Throw the draft away; what is shown is the plan again. */
  async letGo(): Promise<void> {
    clearTimeout(this.#saving);
    if (this.overtaken) this.#base = this.before = this.car?.view?.plan ?? this.#base;
    if (this.overtaken) this.#revises = this.overtaken;
    if (!this.older) this.draft = draftOf(this.#base);
    [this.found, this.older, this.overtaken, this.sentence] = [null, false, 0, ''];
    this.#start = this.#told();
    await dropDraft(this.#key);
  }

  get inches(): boolean {
    return this.draft.units.system !== 'mm';
  }

  get aims() {
    return this.shown === 'build' ? this.draft.buildAims : this.draft.aims;
  }

  get aimPath(): string {
    return this.shown === 'build' ? 'build_aims' : 'aims';
  }

  /** What is wrong at a path of the plan; nothing where all is well. */
  at(path: string): string {
    return this.problems.find((p) => p.path.replace(/^what\.(plan\.)*/, '') === path)?.sentence ?? '';
  }

  private layoutOf(end: End) {
    return this.draft.linkages[end]?.layout;
  }

  /** The layout of an end as the core describes it. */
  layout(end: End): Layout | undefined {
    return this.layouts.find((l) => l.name === this.layoutOf(end));
  }

  // The table of tools, and what else a new car begins with, belong to the units until somebody has changed them.
  #begin(inches: boolean): (() => void) | undefined {
    if (!this.before && untrack(() => MARGINS.includes(this.draft.footing.margin)))
      this.draft.footing.margin = MARGINS[inches ? 1 : 0]!;
    return this.#base?.tools.length
      ? undefined
      : until(
          () => api.tools(inches),
          (tools) => (this.draft.tools = tools),
        );
  }

  async copyAims(from: (c: string) => boolean, to: (c: string) => string): Promise<void> {
    await allRead(); // what was typed a moment ago goes with them
    for (const c of CORNERS.filter(from))
      for (const kind of kindsAt(c).filter((k) => kindsAt(to(c)).includes(k)))
        this.aims[`${to(c)}.${kind}`] = { ...this.aims[`${c}.${kind}`]! };
  }

  startAims(purpose: string): void {
    for (const { mark, aim, tolerance, source } of this.purposes[purpose] ?? [])
      this.draft.aims[mark] = {
        aim,
        tolerance,
        source: `${purpose}: ${source}`,
        trust: 'fair',
        other: '',
        typed: '',
        beyond: '',
      };
  }

  /** Take over the plan of another car; the name stays this one's own. */
  async takeFrom(slug: string): Promise<void> {
    if (!slug) return;
    this.#base = await api.planOf(slug);
    this.draft = { ...draftOf(this.#base), name: this.draft.name };
  }

  async takeFile(file: File | undefined): Promise<void> {
    if (!file) return;
    this.sentence = '';
    try {
      const found = JSON.parse(await file.text()) as Plan;
      if (found.format !== 'ready-corner plan') throw new Error();
      this.#base = found;
      this.draft = draftOf(found);
    } catch {
      this.sentence = PLAN.notPlan(file.name);
    }
  }

  async keep(): Promise<void> {
    (document.activeElement as HTMLElement | null)?.blur(); // a figure still in its field is read first
    await allRead();
    const made = planOf($state.snapshot(this.draft), this.#base);
    this.sentence = '';
    this.problems = 'problems' in made ? made.problems : [];
    if ('problems' in made) this.sentence = PLAN.stillMissing(made.problems.length);
    else await this.#send(made.plan);
    if (this.problems.length || this.sentence)
      requestAnimationFrame(() => {
        const wrong = document.querySelector<HTMLElement>('[aria-invalid]');
        openAround(wrong);
        wrong?.focus();
      });
  }

  /** Begin a car of which only the frame is there: its wheels are taken roughly, and said to be; what is wanted first is at the jig. */
  beginWithFrame(): Promise<void> {
    roughOut(this.draft);
    this.kept = (slug) => router.go(`/cars/${slug}/jig`);
    return this.keep();
  }

  async #send(plan: Plan): Promise<void> {
    try {
      const slug = this.car ? await this.#revise(this.car, plan) : await this.#beginCar(plan);
      if (!slug) return;
      clearTimeout(this.#saving);
      this.#start = this.#told();
      await dropDraft(this.#key);
      this.kept(slug);
    } catch (error) {
      this.sentence = error instanceof Away ? PLAN.away : (error as Error).message;
      if (error instanceof Refused)
        [this.problems, this.unusual, this.#doubted] = [
          error.problems,
          error.code === 'unusual_value',
          JSON.stringify(plan),
        ];
    }
  }

  /** Whether keeping it is to be asked about first: what was read would be moved since. */
  async #asks(car: Car, what: What, plan: string): Promise<boolean> {
    if (this.told === plan) return false;
    const { moved } = await api.revision(car.slug, newEntry(what));
    this.told = plan;
    if (moved.length) this.sentence = PLAN.makesMoved(moved);
    return moved.length > 0;
  }

  async #revise(car: Car, plan: Plan): Promise<string> {
    const what = { kind: 'plan', version: 1, plan, revises: this.#revises, confirmed: this.#isSo(plan) } as const;
    if (await this.#asks(car, what, JSON.stringify(plan))) return '';
    const fate = await car.ask(what, PLAN.revise(plan.name));
    if (fate.fate === 'refused') throw new Refused(fate.status, fate.code, fate.sentence, fate.problems);
    return car.slug;
  }

  /** Whether this very plan was asked about: sent again, what is unusual in it is so. */
  #isSo(plan: Plan): boolean {
    return this.unusual && this.#doubted === JSON.stringify(plan);
  }

  async #beginCar(plan: Plan): Promise<string> {
    const entry = newEntry({ kind: 'plan', version: 1, plan, revises: 0, confirmed: this.#isSo(plan) });
    return (await api.begin({ ...entry, id: this.#beginning })).slug;
  }
}

const KEY = Symbol('sheet');
export const layOut = (sheet: Sheet): Sheet => setContext(KEY, sheet);
/** The sheet a part of the page belongs to. */
export const theSheet = (): Sheet => getContext<Sheet>(KEY);
