// Words of the stage Stance.
export const STANCE = {
  title: 'Stance',
  tabs: { floor: 'On the floor', stands: 'On stands', springs: 'Springs and travel', state: 'Pads and state', sums: 'Sums' } as const,
  next: 'Then settle it and read all four again; what each turn really did is learned.',
  perches: 'Perches to turn', lift: 'In this order the car is lifted once at each end.', then: 'then', turn: 'Turn it',
  noPerch: 'no perch named', left: (room: string) => room.replace(/^left: /, 'thread left: '), bump: 'bump left', droop: 'droop left', load: 'carries',
  does: 'What one turn up of each perch does', doesSoft: 'By the springs of the plan and what this car has told of them.', undo: 'Go by the plan again', learned: 'Learned from this car', learnedNone: 'Nothing yet: read the four heights, turn one perch, settle, read again.',
  provisional: 'Provisional', bars: { on: 'bar links are on', off: 'bar links are off' } as const, takeOff: 'take bar links off', putOn: 'put bar links on',
  jacking: 'Jack under the chassis with a second support beside it; nobody under a car that hangs on a jack.',
  keys: { next: 'record, next', turn: 'record the turn', skip: 'skip, back', other: 'other perch', read: 'back to reading', perch: 'turn a perch', tool: (name: string) => `other tool, now ${name}` } as const, turned: 'How far turned',
  asTold: 'Enter alone: turned as told', noTurn: 'No perch is told to be turned. Type what was turned all the same.',
  settleFirst: 'Not settled: roll the car, bounce each end, then press S.',
} as const;
export const STANDS = {
  hubs: 'Where the hubs must sit', hubsSoft: 'Loaded tyre radius less wanted ride height, on these stands. A hub set lower gives a higher car.',
  wanted: 'over the floor', read: 'set at', gives: 'the car will stand', unread: 'not set yet',
  rods: 'Rods in place of the dampers', rodsSoft: 'Eye to eye. A second support under the car; springs hold energy, and a loose coil falls out.',
  columns: { at_wanted: 'as wanted', at_ride: 'as drawn', at_level: 'arm level', at_bump: 'full bump', at_droop: 'full droop' } as const,
  rate: 'at the wheel, coil as drawn', ratio: 'ratio', rough: 'rough formula', none: 'The plan names no spring or damper here yet.', unknown: '—', strength: 'Nothing here is a strength calculation.',
  hubHow: 'Hub centre without a wheel: strings between opposite bolt holes cross in it, or it is the middle of a sleeve through the bearing.',
  caution: 'Stands on firm ground, wheels or blocks under the sills, before anything is loosened.',
} as const;
export const SPRINGS = {
  corner: 'Corner', none: 'Give the plan a rate and a free length for this spring, and a weight for the car; or put it on the scales.', plot: 'rate at the wheel', over: 'wheel travel', rough: 'rough formula', true: 'true ratio, spring force counted',
  seats: 'Seats centred and square at ride height: what the spring has moved by', seatColumns: ['at', 'along', 'across', 'bows by'] as const, order: 'What ends the travel', arms: 'Arms to the chassis', caution: 'Springs hold energy. Preload raises or lowers the corner and never changes the rate.',
} as const;
export const STATE = {
  pads: 'Pads', pad: { pad: 'Pad', read: 'read', up: 'or shim up', adds: 'arithmetic adds' } as const, shimmed: 'Shimmed or levelled now', readPads: 'Read the pads',
  state: 'State of the car', aboard: 'Aboard', aboards: { driver: 'driver', ballast: 'ballast for the driver', nobody: 'nobody' } as const, fuel: 'Fuel', missing: 'Not fitted yet, one a line', pressure: 'Tyres at pressure', keep: 'This is how it is now', unsaid: 'Not said yet.',
  tyres: 'Tyres', stand_in: 'a stand-in', own: 'its own', fitted: 'on it', fitStandIn: 'A stand-in is on now', ownAgain: 'Its own is on again', radius: 'Read its radius', tyreSoft: 'The loaded radius is read on the car at pressure; half the tyre is not it. A stand-in is taken out of the heights.',
  features: 'Ride height by any feature', featuresSoft: 'The first are read; the rest follow by rigid geometry.', wanted: 'wanted', now: 'now', other: 'Say it by other features', reckon: 'Work it out',
  bars: 'Anti-roll bar links', notes: 'To do',
} as const;
export const SUMS = {
  spring: 'A spring by frequency or sag', hz: 'Frequency, Hz', sag: 'or sag from full droop', preload: 'Preload', damper: 'A damper in hand', closed: 'Closed', open: 'Open', damperSoft: 'Measure the part in hand; lists and parts differ.',
  torsion: 'Splines of a torsion bar', inner: 'Splines inner', outer: 'Splines outer', arm: 'Arm', rate: 'Rate of the bar', load: 'Load at the arm', loaded: 'Arm to stand under level', low: 'Found low by (minus: high)', fine: 'Fine adjuster covers',
  bar: 'An anti-roll bar', end: 'At the', ends: { front: 'front', rear: 'rear' } as const, left: 'Left end up', right: 'Right end up', size: ['Diameter', 'Bore', 'Length', 'Arm', 'Arm wide', 'Arm high'] as const, barSoft: 'Empty sizes: those of the plan. Down is minus.',
  tube: 'Tube of a rod', length: 'Eye to eye', joint: 'Eye to end of thread', thread: 'Thread screwed in', armAngle: 'lower arm', go: 'Work it out',
} as const;
export const STRIP = { ride: 'ride', now: 'stands here', names: { 'bump stop': 'bump stop', 'droop stop': 'droop stop', 'tyre to body': 'tyre to body', ground: 'ground', 'damper closed': 'damper shut', 'damper open': 'damper open', 'coil solid': 'coil solid' } as Record<string, string> } as const;
export const DRAWN = {
  side: (left: boolean) => `From the ${left ? 'left' : 'right'}, to scale; wanted stance thin, yellow`, end: (front: boolean) => `From ${front ? 'the front' : 'behind'}, to scale`, toSet: 'to set',
} as const;
