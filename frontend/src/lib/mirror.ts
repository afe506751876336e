// Points of the two sides by name.
const SIDES: Readonly<Record<string, string>> = {
  left: 'right',
  right: 'left',
  LF: 'RF',
  LR: 'RR',
  RF: 'LF',
  RR: 'LR',
};
/** The name of a point on the other side; its own where it has none. */
export const mirrorName = (name: string): string =>
  name
    .split('.')
    .map((word) => SIDES[word] ?? word)
    .join('.');
