// Words on the drawings.
import { QUANTITIES } from '$lib/kinds';
import type { Corner, Quantity } from '$lib/api/client';
import { CORNER_WORDS } from '$lib/marks';

export const DRAWING = {
  string: 'string',
  centreline: 'centreline',
  front: 'front of car',
  gauge: 'gauge',
  floor: 'floor',
  fromAbove: 'Seen from above, to scale',
  turned: (n: number) => `to scale, wheel angles drawn ×${n}`,
  fromBehind: 'Seen from behind, to scale',
  side: (left: boolean) => `Seen from the ${left ? 'left, nose to the left' : 'right, nose to the right'}; to scale`,
  place: (corner: Corner, quantity: Quantity) => `${CORNER_WORDS[corner]}: where ${QUANTITIES[quantity].spot} is read`,
} as const;
