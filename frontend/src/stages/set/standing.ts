// A corner as one stands at the car and faces the wheel: left of the car the front is to the left, right of it to the right.
import type { CarView, Corner, Layout } from '$lib/api/client';
import { isFront, isLeft } from '$lib/marks';
import { mirrorName } from '$lib/mirror';

type Place = readonly [number, number, number];
export interface Seen {
  u: number;
  v: number;
}
export interface Line {
  name: string;
  from: Seen;
  to: Seen;
}
/** Where a point of the plan is; a right one that is not given is the mirror of its twin. */
function placeOf(points: CarView['plan']['points'], name: string): Place | null {
  const own = points?.[name];
  if (own) return own as unknown as Place;
  const twin = points?.[mirrorName(name)] as Place | undefined;
  return twin ? [twin[0], -twin[1], twin[2]] : null;
}

export interface Standing {
  wheel: Seen;
  radius: number;
  lines: Line[];
  seen: (place: Place) => Seen;
  at: (name: string) => Seen | null;
}
/** The wheel of a corner and what holds it, from outside; null where the plan has no points there. */
export function standingAt(view: CarView, corner: Corner, layouts: readonly Layout[]): Standing | null {
  const { plan } = view;
  const linkage = isFront(corner) ? plan.front_linkage : plan.rear_linkage;
  const layout = layouts.find((l) => l.name === linkage?.layout);
  if (!linkage || !layout) return null;
  const side = isLeft(corner) ? 'left' : 'right';
  const prefix = layout.axle ? (isFront(corner) ? 'front' : 'rear') : corner;
  const along = isLeft(corner) ? -1 : 1;
  const seen = ([x, , z]: Place): Seen => ({ u: along * x, v: -z });
  const place = (name: string) => placeOf(plan.points, `${prefix}.${name}`);
  const centre = place(layout.axle ? `${side}.wheel` : 'wheel');
  if (!centre) return null;
  const other = side === 'left' ? 'right' : 'left';
  const lines = layout.lines.flatMap(({ name, inner, outer }): Line[] => {
    const [a, b] = [place(inner), place(outer)];
    if (!a || !b || inner.split('.').includes(other)) return [];
    return [{ name, from: seen(a), to: seen(b) }];
  });
  const at = (name: string) => {
    const found = place(name);
    return found && seen(found);
  };
  return { wheel: seen(centre), radius: linkage.loaded_radius, lines, seen, at };
}
