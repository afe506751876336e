// Words of the list of cars.
export const CARS = {
  title: 'Cars in this workshop',
  none: 'No car yet. Begin one: its name, wheelbase, tracks and wheels are enough to start measuring.',
  begin: 'Begin a car',
  entries: (n: number) => `${n} line${n === 1 ? '' : 's'} in the logbook`,
  away: 'The server is away. Start it with ./start, then open this page again.',
  opening: 'Looking for cars…',
} as const;
