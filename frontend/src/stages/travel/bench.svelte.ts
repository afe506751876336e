// What stage Travel shows: an end over a drive, the curves as planned and with something moved, and where the reading line stands.
import { api, type BodyMoving, Refused, type Change, type Lever, type Study } from '$lib/api/client';
import { TRAVEL } from './texts';

export type End = 'front' | 'rear';
export type Over = 'travel' | 'steer' | 'roll';
const ROWS = 61;

export class Bench {
  end = $state<End>('front');
  over = $state<Over>('travel');
  low = $state(-60);
  high = $state(60);
  answer = $state('camber_deg');
  changes = $state.raw<Change[]>([]);
  anew = $state(false);
  planned = $state.raw<Study | null>(null);
  moved = $state.raw<Study | null>(null);
  built = $state.raw<Study | null>(null); // with the points as measured, where some of this end are
  surveyed = $state.raw<string[]>([]);
  levers = $state.raw<Lever[]>([]);
  shown = $state<'curves' | 'linkage'>('curves');
  moving = $state.raw<{
    over: Over;
    planned: BodyMoving[];
    built: BodyMoving[] | null;
    moved: BodyMoving[] | null;
  } | null>(null);
  refusal = $state('');
  row = $state(Math.floor(ROWS / 2));
  #asked = 0;

  constructor(
    readonly slug: string,
    readonly inches: boolean,
  ) {
    [this.low, this.high] = this.#range('travel');
  }

  #range(over: Over): [number, number] {
    return (this.inches ? TRAVEL.inchRanges : TRAVEL.ranges)[over]!;
  }

  get curve() {
    return this.planned?.curves.find((c) => c.answer === this.answer) ?? this.planned?.curves[0] ?? null;
  }

  get asBuilt() {
    return this.built?.curves.find((c) => c.answer === this.curve?.answer) ?? null;
  }

  /** Which measured points belong to the end shown. */
  get measured(): string[] {
    const own = this.end === 'front' ? ['LF', 'RF', 'front'] : ['LR', 'RR', 'rear'];
    return this.surveyed.filter((n) => own.includes(n.split('.')[0]!));
  }

  get after() {
    return this.moved?.curves.find((c) => c.answer === this.curve?.answer) ?? null;
  }

  show(end: End, over: Over): void {
    this.changes = end === this.end ? this.changes : [];
    [this.end, this.over] = [end, over];
    [this.low, this.high] = this.#range(over);
    void this.ask();
  }

  pick(answer: string): void {
    this.answer = answer;
    void this.askLevers();
  }

  async ask(): Promise<void> {
    const mine = ++this.#asked;
    const asked = {
      end: this.end,
      over: this.over,
      low: this.low,
      high: this.high,
      rows: ROWS,
      lengths: this.anew ? ('anew' as const) : ('kept' as const),
    };
    try {
      const [planned, moved, built] = await Promise.all([
        api.travel(this.slug, { ...asked, built: false, changes: [] }),
        this.changes.length ? api.travel(this.slug, { ...asked, built: false, changes: this.changes }) : null,
        this.measured.length ? api.travel(this.slug, { ...asked, built: true, changes: [] }) : null,
      ]);
      if (mine !== this.#asked) return;
      [this.planned, this.moved, this.built, this.refusal] = [planned, moved, built, ''];
      await this.askLevers();
    } catch (error) {
      if (mine === this.#asked)
        [this.planned, this.moved, this.built, this.refusal] = [null, null, null, (error as Error).message];
    }
  }

  /** What if alone: the curves as planned stay as they are. */
  async move(changes: Change[]): Promise<void> {
    const mine = ++this.#asked;
    this.changes = changes;
    if (!changes.length) {
      [this.moved, this.refusal] = [null, ''];
      return;
    }
    try {
      const moved = await api.travel(this.slug, {
        end: this.end,
        over: this.over,
        low: this.low,
        high: this.high,
        rows: ROWS,
        lengths: this.anew ? 'anew' : 'kept',
        built: false,
        changes,
      });
      if (mine === this.#asked) [this.moved, this.refusal] = [moved, ''];
    } catch (error) {
      if (mine === this.#asked) [this.moved, this.refusal] = [null, error instanceof Refused ? error.message : ''];
    }
  }

  /** Where every part is over the drive, for the drawing that moves. */
  async askMoving(): Promise<void> {
    const mine = this.#asked;
    const { end, over, low, high, changes, built, moved } = this;
    const asked = { end, over, low, high, rows: ROWS, lengths: this.anew ? ('anew' as const) : ('kept' as const) };
    try {
      const [planned, asBuilt, after] = await Promise.all([
        api.moving(this.slug, { ...asked, built: false, changes: [] }),
        built ? api.moving(this.slug, { ...asked, built: true, changes: [] }) : null,
        moved ? api.moving(this.slug, { ...asked, built: false, changes }) : null,
      ]);
      if (mine === this.#asked) this.moving = { over, planned, built: asBuilt, moved: after };
    } catch {
      if (mine === this.#asked) this.moving = null; // the curves say why
    }
  }

  async askLevers(): Promise<void> {
    const [curve, end] = [this.curve, this.end];
    const still = () => curve?.answer === this.curve?.answer && end === this.end; // another may have been picked meanwhile
    try {
      const found = curve?.right ? await api.levers(this.slug, end, curve.answer) : [];
      if (still()) this.levers = found;
    } catch {
      if (still()) this.levers = [];
    }
  }

  step(by: number): void {
    const last = (this.planned?.drive.length ?? 1) - 1;
    this.row = Math.min(Math.max(this.row + by, 0), last);
  }

  csv(): string {
    const study = this.planned;
    if (!study) return '';
    const of = (made: Study | null, prefix: string) =>
      (made?.curves ?? []).flatMap((c) => {
        const unit = c.unit ? ` [${c.unit}]` : '';
        return [
          { name: `${prefix}${c.answer}.left${unit}`, values: c.left },
          ...(c.right ? [{ name: `${prefix}${c.answer}.right${unit}`, values: c.right }] : []),
        ];
      });
    const all = [
      { name: `${this.over} [${study.unit}]`, values: study.drive as (number | null)[] },
      ...of(study, ''),
      ...of(this.built, 'as_built.'),
      ...of(this.moved, 'what_if.'),
    ];
    return (
      [
        all.map((c) => c.name).join(','),
        ...study.drive.map((_, i) => all.map((c) => c.values[i] ?? '').join(',')),
      ].join('\n') + '\n'
    );
  }
}
