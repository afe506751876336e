// What stage Jig shows and does: the frame as surveyed, the reading in hand, and the list of what to measure.
import { api, type JigView, type Proposal, type SurveyRead, type What } from '$lib/api/client';
import { until } from '$lib/api/until';
import { capital } from '$lib/kinds';
import { spoken } from '$lib/marks';
import { Desk, type Meaning } from '$parts/tape/desk.svelte';
import { zeroOther, type Zero } from '$parts/tape/zero';
import { JIG } from './texts';

export type Kind = keyof typeof JIG.kinds;
export type Tab = keyof typeof JIG.tabs;

export class Survey extends Desk {
  view = $state.raw<JigView | null>(null);
  away = $state(''); // why the frame cannot be shown
  tab = $state<Tab>('measure');
  kind = $state<Kind>('distance');
  points = $state.raw<string[]>([]);
  tool = $state('');
  pins = $state<keyof typeof JIG.pins>('');
  diameters = $state<[string, string]>(['', '']);
  burnt = $state('');
  says = $state<keyof typeof JIG.says>('same');
  list = $state.raw<Proposal['list']>([]);
  listSays = $state('');
  lit = $state('');
  /** Points being touched on the drawing for something else than a reading. */
  choosing = $state.raw<{ what: 'ask' | 'datum'; points: string[]; most: number } | null>(null);

  get needed(): number {
    return JIG.counts[this.kind];
  }

  get ready(): boolean {
    return this.points.length === this.needed;
  }

  get tools() {
    const angle = this.kind === 'slope' || this.kind === 'heading';
    return (this.view?.tools ?? []).filter((t) => t.measures === (angle ? 'angle' : 'length'));
  }

  get toolNow() {
    return (
      this.tools.find((t) => t.id === this.tool) ??
      this.tools.find((t) => t.id === (this.kind === 'distance' ? 'tape' : 'rule')) ??
      this.tools[0]
    );
  }

  /** Which line of the list is in hand; -1 where none is. */
  get at(): number {
    return this.list.findIndex((l) => l.reading === this.kind && l.points.join() === this.points.join());
  }

  get title(): string {
    if (!this.points.length) return JIG.pick;
    const line = this.list[this.at];
    if (line) return capital(line.say); // whether it is read once more, and from where, stands there
    const said = this.points.map(spoken);
    if (this.needed === 1) return `${said[0]}: ${JIG.kinds[this.kind].toLowerCase()}`;
    if (this.kind === 'compare') return `${said.slice(0, 2).join(' to ')} against ${said.slice(2).join(' to ')}`;
    return said.join(' to ') + (this.points.length < this.needed ? ' to …' : '');
  }

  /** Ask for the frame as it is now; returns how to stop that. */
  refresh(): () => void {
    return until(
      () => api.jig(this.car.slug),
      (view) => ([this.view, this.away] = [view, '']),
      (why) => (this.away = why),
    );
  }

  choose(what: 'ask' | 'datum', most: number): void {
    this.choosing = { what, points: [], most };
  }

  /** A point touched: for what is being chosen, where the datum may name one twice; else for the reading in hand. */
  pick(name: string): void {
    this.lit = name;
    const { choosing } = this;
    if (choosing && this.tab === 'state') {
      const { what, points, most } = choosing;
      const others = what === 'ask' ? points.filter((p) => p !== name) : points;
      const next = others.length < points.length ? others : points.length < most ? [...points, name] : [name];
      this.choosing = { what, points: next, most };
      return;
    }
    this.points =
      this.points.length >= this.needed
        ? [name]
        : this.points.includes(name) && this.kind !== 'compare'
          ? this.points
          : [...this.points, name];
    this.clear();
  }

  ask(kind: Kind, points: string[]): void {
    [this.kind, this.points] = [kind, points];
    this.lit = points[0] ?? '';
    this.clear();
  }

  protected what(typed: string): What | null {
    return this.ready ? (this.#read(typed) as What) : null;
  }

  protected look(what: What): Promise<Meaning> {
    return api.jigPreview(this.car.slug, what as SurveyRead);
  }

  #read(typed: string): SurveyRead {
    const free = this.kind === 'compare' || this.kind === 'in_line';
    return {
      kind: 'survey',
      version: 1,
      reading: this.kind,
      points: this.points,
      typed,
      tool: this.toolNow?.id ?? '',
      says: this.kind === 'compare' ? this.says : null,
      pins: this.kind === 'distance' && this.pins ? this.pins : null,
      diameters: this.pins ? this.diameters : ['', ''],
      burnt: free ? '' : this.burnt,
      confirmed: false,
    } as SurveyRead;
  }

  /** Record what is typed, at once, and go on. */
  enter(): void {
    const typed = this.typed.trim();
    if (!this.ready || !typed) return;
    const title = `${this.title}: ${typed}`;
    this.car.record(this.#read(typed) as What, title);
    this.clear();
    this.next();
    this.keptNow(title);
  }

  protected openAgain(what: What): boolean {
    if (what.kind !== 'survey') return false;
    this.tab = 'measure';
    this.ask(what.reading as Kind, what.points);
    [this.tool, this.pins, this.diameters, this.burnt] = [
      what.tool,
      what.pins ?? '',
      (what.diameters ?? ['', '']) as [string, string],
      what.burnt ?? '',
    ];
    if (what.says) this.says = what.says;
    return true;
  }

  protected letters(): Record<string, () => unknown> {
    return { u: () => this.nextTool(), g: () => this.rezero() };
  }

  /** What the gauge in hand is zeroed on; null where nothing is zeroed to read it. */
  get zero(): Zero | null {
    return this.kind === 'slope' && this.view ? this.view.zero : null;
  }

  rezero(): void {
    if (this.zero) zeroOther(this.car, this.zero);
  }

  nextTool(): void {
    const at = this.tools.findIndex((t) => t.id === this.toolNow?.id);
    this.tool = this.tools[(at + 1) % this.tools.length]?.id ?? '';
    this.askAnew();
  }

  /** Go on with the list: what was just read drops off it. */
  next(): void {
    const same = (l: Proposal['list'][number]) =>
      l.reading === this.kind && [...l.points].sort().join() === [...this.points].sort().join();
    const at = this.list.findIndex(same);
    if (at >= 0) this.list = this.list.filter((_, i) => i !== at);
    const following = this.list[Math.min(Math.max(at, 0), this.list.length - 1)];
    if (following) return this.ask(following.reading as Kind, following.points);
    // The last line of a list is not asked for again; points that were picked by hand stay picked.
    if (at >= 0) [this.points, this.listSays] = [[], JIG.listDone];
  }

  step(by: number): void {
    const to = this.list[Math.min(Math.max(this.at + by, 0), this.list.length - 1)];
    if (to) this.ask(to.reading as Kind, to.points);
  }

  /** What every point is to be sure to where nothing else is asked for. */
  get usual(): string {
    return this.car.view!.plan.units.system === 'mm' ? '1' : '1/16';
  }

  /** ``unasked``: nobody asked for it, so it takes nothing out of a hand that has begun meanwhile. */
  async propose(typed = this.usual, unasked = false): Promise<void> {
    this.listSays = JIG.working;
    try {
      const found = await api.proposal(this.car.slug, {
        typed,
        points: [],
        tape: this.toolOf('distance'),
        table: this.toolOf('height'),
        heights: true,
      });
      [this.list, this.listSays] = [found.list, found.say];
      const first = found.list[0];
      const begun = this.points.length || this.typed || this.kind !== 'distance';
      if (first && !(unasked && begun)) this.ask(first.reading as Kind, first.points);
    } catch (error) {
      [this.list, this.listSays] = [[], (error as Error).message];
    }
  }

  toolOf(kind: Kind): string {
    const lengths = (this.view?.tools ?? []).filter((t) => t.measures === 'length');
    if (this.kind === kind && this.toolNow) return this.toolNow.id;
    return (lengths.find((t) => t.id === (kind === 'distance' ? 'tape' : 'rule')) ?? lengths[0])?.id ?? '';
  }

  async record(what: What, title: string): Promise<string> {
    const fate = await this.car.ask(what, title);
    return fate.fate === 'refused' ? fate.sentence : '';
  }

  strikeOut(id: string): Promise<string> {
    return this.record({ kind: 'correction', version: 1, strikes: id, reason: '' }, JIG.strikeOut);
  }
}
