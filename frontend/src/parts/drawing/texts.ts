// Words on the drawings.
import { QUANTITIES } from '$lib/kinds';
import type { Corner, Quantity } from '$lib/api/client';
import { CORNER_WORDS } from '$lib/marks';

const enlarged = (n: number) => `wheel angles drawn ×${n}`;
export const DRAWING = {
  string: 'string',
  centreline: 'centreline',
  thrust: 'thrust',
  setback: 'setback',
  front: 'front of car',
  gauge: 'gauge',
  floor: 'floor',
  turned: (n: number) => `to scale, ${enlarged(n)}`,
  enlarged,
  plumb: 'plumb line',
  straightEdge: 'straight edge on the rail',
  middleLine: 'line down the middle',
  upper: 'upper joint',
  lower: 'lower joint',
  fromAhead: 'Seen from ahead, to scale',
  axis: (n: number) => `lean of the joints drawn ×${n}`,
  leaning: (n: number) => `lean drawn ×${n}`,
  onPlate: (inwards: boolean) => `Seen from above, on its plate: front of the wheel steered ${inwards ? 'in' : 'out'}`,
  fromBehind: 'Seen from behind, to scale',
  side: (left: boolean) => `Seen from the ${left ? 'left, nose to the left' : 'right, nose to the right'}; to scale`,
  place: (corner: Corner, quantity: Quantity) => `${CORNER_WORDS[corner]}: where ${QUANTITIES[quantity].spot} is read`,
} as const;
