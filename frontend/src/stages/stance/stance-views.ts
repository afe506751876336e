// The car as it stands, laid on two plates: wheels, places of height, stands and chassis, from one side and from one end.
import type { CarView, Corner, StanceView } from '$lib/api/client';
import { axle, CORNERS, isFront, isLeft, markOf } from '$lib/marks';
import { type Attitude, fixed, type Flat, laid, type Point } from './chassis';

const LEVEL: Attitude = { pitch_deg: 0, roll_deg: 0, height: 0 };
const STANDS = 260; // mm; how high it is drawn on stands before a height on them is read
export interface Shown {
  view: CarView;
  stance: StanceView | null;
  corner: Corner;
  onStands: boolean;
  quantity: string;
  typed: string;
}
export interface Wheel {
  c: Corner;
  at: Point;
  r: number;
  rim: number;
  latest: string;
  wanted: string; // height of its hub on stands, in words; empty where none is told
  gives: string;
}
export interface HeightPlace {
  c: Corner;
  at: Point;
  name: string;
  lit: boolean;
  text: string;
  off: string;
}
export interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}

export class StanceViews {
  readonly wanted: Attitude;
  readonly now: Attitude;
  readonly body: Point[];
  readonly wheels: Wheel[];
  readonly places: HeightPlace[];
  readonly stands: Point[];
  readonly #plan: CarView['plan'];

  constructor(readonly shown: Shown) {
    const { view, stance, onStands } = shown;
    this.#plan = view.plan;
    this.wanted = stance?.wanted ?? LEVEL;
    const stood = stance?.stands ?? { ...this.wanted, height: this.wanted.height + STANDS };
    this.now = onStands ? stood : (stance?.floor ?? this.wanted);
    this.body = fixed(view.plan);
    this.wheels = CORNERS.map((c) => this.#wheel(c));
    this.places = CORNERS.map((c) => this.#place(c));
    const { stands } = view.plan.footing;
    const rests = stands?.length ? stands : view.plan.heights.map((h) => ({ ...h, height: h.height ?? 80 }));
    this.stands = rests.map((s) => laid(this.now, [s.station, s.offset, s.height]));
  }

  /** Along the car, nose left on its left side. */
  along = (p: Point): Flat => [(isLeft(this.shown.corner) ? -1 : 1) * p[0], -p[2]];
  /** Across it, as seen from that end. */
  across = (p: Point): Flat => [(isFront(this.shown.corner) ? 1 : -1) * p[1], -p[2]];

  /** Where a wheel or a place stands seen along, against the middle of the car: 1 behind it on the plate, -1 before. */
  side(x: number): 1 | -1 {
    return x < this.along([-this.#plan.wheelbase / 2, 0, 0])[0] ? -1 : 1;
  }

  get sideBox(): Box {
    const { wheelbase } = this.#plan;
    const high = Math.max(this.#plan.front.tyre_diameter, this.#plan.rear.tyre_diameter) / 2;
    const far = [this.along([high, 0, 0])[0], this.along([-wheelbase - high, 0, 0])[0]];
    const xs = [...this.body.map((p) => this.along(p)[0]), ...far];
    return this.#box(Math.min(...xs) - 60, Math.max(...xs) + 60);
  }

  get endBox(): Box {
    const half = (axle(this.shown.view, this.shown.corner).track + 330) / 2;
    return this.#box(-half, half);
  }

  #box(low: number, far: number): Box {
    const top = Math.max(...this.body.map((p) => laid(this.now, p)[2]), ...this.wheels.map((w) => w.at[2] + w.r));
    const [head, words] = [this.shown.onStands ? 150 : 40, 210]; // mm over the car; under the floor for the figures
    return { x: low, y: -top - head, w: far - low, h: top + head + words };
  }

  #ask(round: 'floor_round' | 'stand_round', c: Corner, quantity: string) {
    return this.shown.view[round].find((a) => a.corner === c && a.quantity === quantity);
  }

  #wheel(c: Corner): Wheel {
    const { view, stance, onStands } = this.shown;
    const one = stance?.corners.find((s) => s.corner === c);
    const hub = stance?.hubs.find((h) => h.corner === c);
    const at = laid(this.now, [one?.wheel[0] ?? 0, one?.wheel[1] ?? 0, 0]);
    const { tyre_diameter, rim_flange_diameter } = axle(view, c);
    const r = one?.radius ?? tyre_diameter / 2;
    const z = onStands ? (hub?.set_at ?? hub?.at ?? (one?.radius ?? 300) + STANDS) : r;
    return {
      c,
      at: [at[0], at[1], z],
      r,
      rim: rim_flange_diameter / 2,
      latest: this.#ask('stand_round', c, 'hub')?.latest ?? '',
      wanted: hub?.wanted ?? '',
      gives: hub?.gives_short ?? '',
    };
  }

  #place(c: Corner): HeightPlace {
    const { view, corner, quantity, typed, onStands } = this.shown;
    const named = this.#plan.heights.find((h) => h.corner === c);
    const mark = markOf(view, `${c}.height`);
    const at: Point = [
      named?.station ?? (isFront(c) ? 0 : -this.#plan.wheelbase),
      named?.offset ?? ((isLeft(c) ? 1 : -1) * axle(view, c).track) / 2,
      named?.height ?? mark.aim?.aim ?? 120,
    ];
    const ask = onStands ? this.#ask('stand_round', c, 'stand') : this.#ask('floor_round', c, 'height');
    const lit = c === corner && (quantity === 'height' || quantity === 'stand');
    const text = lit && typed ? typed : (ask?.latest ?? '');
    return { c, at: laid(this.now, at), name: named?.name ?? '', lit, text, off: onStands ? '' : mark.do };
  }
}
