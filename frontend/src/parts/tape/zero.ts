// What an angle gauge is zeroed on.
import type { Car } from '$lib/car.svelte';
import { DESK } from '$parts/texts';

export type Zero = keyof typeof DESK.zeroed;

/** The gauge is zeroed on the other from now on: angles read next are counted from it. */
export function zeroOther(car: Car, zero: Zero): void {
  const on = zero === 'gravity' ? 'frame' : 'gravity';
  car.record({ kind: 'zeroed', version: 1, on }, DESK.zeroed[on]);
}
