// Words of the frame round every stage.
export const STAGES = [
  { name: 'Plan', path: 'plan', measures: 'what is wanted' },
  { name: 'Jig', path: 'jig', measures: 'pickup points' },
  { name: 'Links', path: '', measures: '' },
  { name: 'Stance', path: 'stance', measures: 'heights and rake' },
  { name: 'Travel', path: 'travel', measures: 'what the wheels do' },
  { name: 'Set', path: 'set', measures: 'camber, toe and thrust' },
  { name: 'Sheet', path: '', measures: '' },
] as const;

export const FRAME = {
  pageAway: 'The server is away, and this page was not brought before. It comes as soon as the server is back.',
  opening: 'Opening the logbook…',
  opened: (share: number) => `It is a long one: ${Math.round(100 * share)} % is read and worked out.`,
  working: 'Working it out…',
  logbookAway:
    'The server is away, and this car was not opened in this browser before. It opens as soon as the server is back.',
  product: 'Ready Corner',
  tagline: 'Every mark read, every corner ready',
  rule: 'The job, stage by stage',
  later: 'not built yet',
  held: (part: number, what: string) => `${Math.round(part * 100)} % of ${what} hold`,
  log: 'Log',
  wall: 'For the wall',
  walk: 'Walk-round',
  cars: 'All cars',
  menu: 'Go to',
  begin: 'Begin a car',
  practice: 'Practice',
  shop: 'Take it to the car',
  who: 'Measured by',
  away: 'Server away',
  kept: (n: number) => `${n} kept in this browser, handed over when it is back`,
  refused: (n: number) => `${n} not taken`,
  look: 'Look at the log',
  full: 'Storage is full or forbidden',
  keptWhere: {
    small: (n: number) =>
      `${n ? `${n} kept` : 'What you record is kept'} in the little this browser still has until handed over`,
    nowhere: (n: number) =>
      `${n ? `${n} kept` : 'What you record is kept'} in this open page and nowhere else until handed over`,
  },
} as const;

export const DESK = {
  take: 'take the figure',
  half: 'wheel half round',
  wheel: {
    0: 'read as it stood',
    180: 'read half a turn round',
    90: 'read a quarter turn round',
    270: 'read three quarters round',
  } as const,
  eye: { id: 'eye', name: 'By eye' },
  byEye: 'As an eye sees it from ahead: a note that any gauge overrules, and no aim is met by it.',
  taking: (tool: string) => `Asking the ${tool.toLowerCase()}…`,
  strike: 'strike out the last',
  struck: (what: string, touch: boolean) => `Struck out: ${what}. ${touch ? '“put it back”' : 'Z'} takes that back.`,
  nothingStruck: 'Nothing was written down on this page since it was opened. Older lines are struck out in the log.',
  putBack: 'put it back',
  turned: (corner: string, name: string) => `${corner}, ${name}, turned`,
  settled: 'the car has settled',
  zeroed: { gravity: 'gauge zeroed on gravity', frame: 'gauge zeroed on the frame' } as const,
  zeroOther: { gravity: 'zeroed on the frame instead', frame: 'zeroed on gravity instead' } as const,
  settleFirst: (touch: boolean) =>
    `Not settled: roll the car, bounce each end, then ${touch ? 'touch “settled”' : 'press S'}. On a lift or stands: ${touch ? 'say so below' : 'W says so'}.`,
  standsKey: 'W',
  stands: {
    'on its wheels': 'the car is on its wheels',
    'on a lift': 'the car is on a lift',
    'on stands': 'the car is on stands',
    'on blocks': 'the car is on blocks',
    'on fixed rods': 'the car is on fixed rods',
  } as const,
  standsUnsaid: 'on a lift or stands?',
  off: (how: string, touch: boolean) =>
    `${how[0]!.toUpperCase()}${how.slice(1)}, as told: what is read now is a note, and no mark holds by it.${touch ? '' : ' W says where it stands.'}`,
  strings: 'strings',
  string: { stands: 'on stands of their own', car: 'on the car', tyres: 'laid on the tyres' } as const,
  stringUnsaid: (touch: boolean) =>
    `Where do the strings rest: on stands, the car or the tyres? ${touch ? '“Strings”' : 'L'} says it; on the tyres they move with what is turned.`,
  stuck: (corner: string, name: string) => `${corner}, ${name}, is stuck`,
  taken: (what: string) => `✓ ${what}`,
  settledHand: 'settled',
  kept: (what: string, away: boolean) => `✓ ${away ? 'Kept in this browser' : 'Kept'}: ${what}`,
  turnTitle: (corner: string, name: string) => `${corner}, ${name}: how far was it turned?`,
} as const;

export const TAPE = {
  keys: 'Keys of the tape',
  fraction: 'Fraction of an inch',
  back: 'take the last key back',
  strike: 'strike out the last',
  enter: 'Enter',
  asTold: 'Turned as told',
  help: 'the keys of this page',
  all: 'keys',
  held: 'how it is done',
  fold: 'look at the page behind',
  unfold: 'to the keys',
  clear: 'clear what is typed',
  close: 'Close',
  figures: "Figures as the shop writes them: 37 3/4, 3' 2 1/2\", 952, 95.2cm, −1°15', 89+38+12; turns as 1t2f.",
} as const;

export const REFUSED = {
  head: 'Not taken',
  more: (n: number) => `and ${n} more, in the log`,
  retype: 'type it again',
  keep: 'keep it, marked',
  again: 'send it again',
  discard: 'discard it',
} as const;

export const TROUBLE = {
  head: 'This car cannot be reckoned just now',
  strike: (n: number) => `Strike out entry ${n}`,
  plan: 'Look at the plan',
  log: 'Look at the log',
} as const;
