// Words of the list of cars.
export const CARS = {
  title: 'Cars in this workshop',
  none: 'No car yet. Begin one: its name, wheelbase, tracks and wheels are enough to start measuring.',
  begin: 'Begin a car',
  practise: 'Practise on a car',
  entries: (n: number) => `${n} line${n === 1 ? '' : 's'} in the logbook`,
  stands: (holding: number, judged: number) =>
    holding === judged ? `All ${judged} marks hold.` : `${holding} of ${judged} marks hold.`,
  noAims: 'Nothing is wanted of it yet.',
  next: 'Next:',
  last: (day: string, who: string) => `the last ${who ? `by ${who} ` : ''}on ${day}`,
  away: 'The server is away. Start it with ./start, then open this page again.',
  opening: 'Looking for cars…',
  waits: (n: number) => `${n} line${n === 1 ? '' : 's'} of it wait${n === 1 ? 's' : ''} in this browser`,
  lost: (slug: string, n: number) =>
    `${n} line${n === 1 ? '' : 's'} wait${n === 1 ? 's' : ''} in this browser for the car “${slug}”, which is not in this workshop.`,
  look: 'Look at them',
  whole: 'The whole workshop as one file',
  wholeSoft:
    'Every car with its whole log. Keep a copy off this machine. What is brought in is added to what is here: nothing here is written over, and what contradicts is refused by name.',
  save: 'Save the workshop',
  bring: 'Bring in a saved file',
  bringing: (file: string) => `Reading ${file}…`,
  notBrought: (file: string, why: string) => `${file} was not brought in: ${why}`,
  brought: (car: { name: string; new: number; had: number; refused: string[] }) =>
    car.refused.length
      ? `${car.name}: ${car.refused.join(' ')}`
      : car.new
        ? `${car.name}: ${car.new} line${car.new === 1 ? '' : 's'} added${car.had ? ` to the ${car.had} that were here` : ''}.`
        : `${car.name}: nothing new.`,
} as const;
