// What the tape's own keys are, by what is typed: four to a column beside the digits, and a fraction set by touch.
export type Typing = 'length' | 'angle' | 'mass' | 'turns' | 'words';

/** The keys between the digits and the actions, from the top, after the one that takes back. */
export const SIGNS: Readonly<Record<Exclude<Typing, 'words'> | 'fraction', readonly [string, string, string]>> = {
  length: ['−', '/', '+'],
  fraction: ['−', '/', "'"],
  angle: ['−', "'", '°'],
  mass: ['−', '/', '+'],
  turns: ['−', 't', 'f'],
};
export const SAID: Readonly<Record<string, string>> = {
  '−': 'minus',
  '/': 'over',
  '+': 'plus',
  "'": 'foot or minute',
  '°': 'degree',
  t: 'turns',
  f: 'flats',
  '.': 'point',
  ' ': 'space',
};

const FRACTION = /\s*\d*\/?\d*$/;

/** The whole inches of a figure that is being typed, without its fraction. */
export function wholeOf(typed: string): string {
  const parts = /^\s*([-−]?\d+)(?:\s+\d*(?:\/\d*)?)?\s*$/.exec(typed);
  return parts?.[1] ?? typed.replace(FRACTION, '').trim();
}

/** The figure with so many ticks of an inch as its fraction, reduced. */
export function withTicks(typed: string, ticks: number, finest: number): string {
  const whole = wholeOf(typed);
  if (ticks <= 0) return whole;
  let [over, under] = [ticks, finest];
  while (over % 2 === 0 && under % 2 === 0) [over, under] = [over / 2, under / 2];
  if (under === 1) return String(Number(whole.replace('−', '-') || 0) + 1);
  return `${whole ? `${whole} ` : ''}${over}/${under}`;
}

/** How many ticks of an inch the fraction being typed is; 0 where there is none. */
export function ticksOf(typed: string, finest: number): number {
  const found = /(?:^|\s)(\d+)\/(\d+)\s*$/.exec(typed);
  return found && Number(found[2]) ? Math.round((Number(found[1]) / Number(found[2])) * finest) : 0;
}
