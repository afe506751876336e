// Words of the walk-round.
export const WALK = {
  title: 'Walk-round',
  hold: (n: number, all: number) => `${n} of ${all} marks hold`,
  none: 'no aims in the plan yet',
  rows: { height: 'Height', camber: 'Camber', toe: 'Toe' } as const,
  whole: 'The whole car',
  names: { 'front.total_toe': 'Front total toe', 'rear.total_toe': 'Rear total toe', 'car.thrust': 'Thrust angle', 'car.rake': 'Rake', 'car.cross': 'Cross difference', 'car.cross_weight': 'Cross weight' } as Record<string, string>,
  next: 'What to do next',
  chance: (n: number) => `${n} in 100 that it does`,
  go: { settle: 'It has settled', disconnect: 'They are off', state: 'Say its state', read: 'Read it', perch: 'Turn it and re-read', turn: 'Turn them', try: 'Try one turn', reconnect: 'They are back on', done: 'Look at the log', plan: 'Open the plan' } as const,
  noAim: 'no aim in the plan',
  unsettled: 'not settled',
  bar: 'anti-roll bar links are off',
  provisional: 'provisional',
  odd: (n: number) => `repeat in entry ${n} does not agree`,
} as const;
