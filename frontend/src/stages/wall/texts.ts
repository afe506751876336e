// Words of the page for the wall of the shop.
export const WALL = {
  title: 'For the wall',
  now: 'Now',
  hold: (holding: number, judged: number) => `${holding} of ${judged} marks hold`,
  none: 'nothing is judged yet',
  left: (n: number) => (n === 1 ? 'one turn left in this lift' : `${n} turns left in this lift`),
  toGo: 'Still to go',
  nothing: 'Nothing is out.',
} as const;
