// Words of the stage Stance.
export const STANCE = {
  title: 'Stance', read: 'Read the heights', next: 'Then read all four again; what each turn really did is learned.',
  perches: 'Perches to turn, reckoned for all four together', lift: 'In this order the car is lifted once at each end.', then: 'then', turn: 'Turn it',
  rods: 'In place of the springs, on stands', rodsSoft: 'Eye to eye. A second support under the car; springs hold energy, and a loose coil falls out.',
  columns: { at_ride: 'at ride height', at_level: 'arm level', at_bump: 'full bump', at_droop: 'full droop' } as const,
  rate: 'at the wheel', ratio: 'ratio', rough: 'rough formula', none: 'The plan names no spring or damper here yet.', unknown: '—', strength: 'Nothing here is a strength calculation.',
} as const;
