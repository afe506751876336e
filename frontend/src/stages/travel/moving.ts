// The linkage as it moves, as it is drawn: from behind over travel and roll, from above over steering. Nothing between the rows is made up.
import type { BodyMoving, Study } from '$lib/api/client';
import type { Over } from './bench.svelte';

export const WIDE = 190; // mm; a tyre as drawn, its width is in no plan
type Place = readonly [number, number, number];
export interface At {
  u: number;
  v: number;
}
/** Left of the car on the left; up, or forward, is up. */
export const seen = ([x, y, z]: Place, over: Over): At => ({ u: -y, v: over === 'steer' ? -x : -z });

export interface WheelDrawn extends At {
  turn: number; // degrees, clockwise on the drawing
  radius: number;
  handle: At; // what a hand takes hold of
}
export function wheelsAt(bodies: BodyMoving[], row: number, over: Over): WheelDrawn[] {
  return bodies.flatMap(({ wheels }) =>
    wheels.flatMap(({ centre, axis, radius }) => {
      const [at, spin] = [centre[row] as Place | null, axis[row] as Place | null];
      if (!at || !spin) return [];
      const middle = seen(at, over);
      const end = seen([at[0] + spin[0], at[1] + spin[1], at[2] + spin[2]], over);
      const outward = spin[1] > 0 ? -1 : 1;
      const lean = Math.atan2((end.v - middle.v) * outward, (end.u - middle.u) * outward);
      const nose = { u: middle.u + Math.sin(lean) * radius, v: middle.v - Math.cos(lean) * radius };
      return [{ ...middle, turn: (lean * 180) / Math.PI, radius, handle: over === 'steer' ? nose : middle }];
    }),
  );
}

export interface PartDrawn {
  key: string;
  kind: string;
  d: string;
  left: number; // share of its range that is left, 1 where it has no limit
}
export function partsAt(bodies: BodyMoving[], study: Study | null, row: number, over: Over): PartDrawn[] {
  return bodies.flatMap(({ body, parts }) =>
    parts.flatMap(({ name, kind, ends }) => {
      const pair = ends[row];
      if (!pair) return [];
      const [a, b] = [seen(pair[0] as Place, over), seen(pair[1] as Place, over)];
      const own = (study?.limits ?? []).filter((l) => l.body === body && l.part === name);
      const left = Math.min(1, ...own.map((l) => l.shares[row] ?? 1));
      return [{ key: `${body}.${kind}.${name}`, kind, d: `M${a.u} ${a.v}L${b.u} ${b.v}`, left }];
    }),
  );
}

/** What comes nearest to its limit at a row, and how much of its range is left. */
export function nearest(study: Study | null, row: number): { what: string; left: number } | null {
  const rows = (study?.limits ?? []).flatMap((l) => {
    const left = l.shares[row];
    return left === null || left === undefined ? [] : [{ what: l.what, left }];
  });
  return rows.length ? rows.reduce((a, b) => (b.left < a.left ? b : a)) : null;
}

/** Where the handle of every wheel is, row by row, along the way it is dragged. */
export const handlesOf = (bodies: BodyMoving[], rows: number, over: Over): number[][] =>
  Array.from({ length: rows }, (_, row) =>
    wheelsAt(bodies, row, over).map(({ handle }) => (over === 'steer' ? handle.u : handle.v)),
  );

/** The row at which the handle of a wheel is nearest to a place along that way. */
export function rowNear(handles: number[][], wheel: number, at: number): number {
  let [best, off] = [0, Infinity];
  handles.forEach((wheels, row) => {
    const far = Math.abs((wheels[wheel] ?? Infinity) - at);
    if (far < off) [best, off] = [row, far];
  });
  return best;
}

/** All that is drawn over the whole drive, with the tyres. */
export function boxOf(bodies: BodyMoving[], over: Over): { x: number; y: number; w: number; h: number } {
  const places = bodies.flatMap(({ parts, wheels }) => [
    ...parts.flatMap((p) => p.ends.flatMap((e) => (e ? [seen(e[0] as Place, over), seen(e[1] as Place, over)] : []))),
    ...wheels.flatMap((w) =>
      w.centre.flatMap((c) => {
        if (!c) return [];
        const { u, v } = seen(c as Place, over);
        return [
          { u: u - WIDE, v: v - w.radius },
          { u: u + WIDE, v: v + w.radius },
        ];
      }),
    ),
  ]);
  const [us, vs] = [places.map((p) => p.u), places.map((p) => p.v)];
  const [x, y] = [Math.min(...us), Math.min(...vs)];
  return { x, y, w: Math.max(...us) - x, h: Math.max(...vs) - y };
}
