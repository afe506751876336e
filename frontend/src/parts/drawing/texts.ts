// Words on the drawings.
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
  place: (corner: Corner, quantity: Quantity) =>
    `${CORNER_WORDS[corner]}: where ${{ height: 'the ride height', camber: 'camber', gap_front: 'the front gap', gap_back: 'the back gap', gap_hub: 'the hub gap', pad: 'the pad', load: 'the load', radius: 'the tyre radius', stand: 'the height on stands', hub: 'the hub height' }[quantity]} is read`,
} as const;
