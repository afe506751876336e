// What was changed in a draft, laid on a newer plan figure by figure.

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
const plain = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const NAMES = ['id', 'corner', 'mark', 'name'] as const;

/** By what the rows of a list are told apart: a name that every one of them has, and each its own. */
const namedBy = (rows: unknown[]): string | undefined =>
  NAMES.find((name) => {
    const found = rows.map((row) => (plain(row) ? row[name] : undefined));
    return found.every((one) => typeof one === 'string') && new Set(found).size === rows.length;
  });

/** Return `theirs` with whatever differs between `was` and `mine` laid on it; where both changed one figure, mine stands. */
export function laidOn<T>(was: T, mine: T, theirs: T): T {
  if (same(mine, was)) return theirs;
  if (same(theirs, was)) return mine;
  if (Array.isArray(was) && Array.isArray(mine) && Array.isArray(theirs)) return rows(was, mine, theirs) as T;
  if (plain(was) && plain(mine) && plain(theirs)) return fields(was, mine, theirs) as T;
  return mine;
}

function fields(was: Record<string, unknown>, mine: Record<string, unknown>, theirs: Record<string, unknown>): unknown {
  const found: Record<string, unknown> = {};
  for (const key of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
    const gone = !(key in mine) && (key in was ? same(theirs[key], was[key]) : false);
    if (!gone) found[key] = key in mine ? laidOn(was[key], mine[key], theirs[key]) : theirs[key];
    if (key in was && !(key in theirs) && same(mine[key], was[key])) delete found[key];
  }
  return found;
}

function rows(was: unknown[], mine: unknown[], theirs: unknown[]): unknown[] {
  const name = [was, mine, theirs].map(namedBy).reduce((a, b) => (a === b ? a : undefined));
  if (!name) return mine;
  const by = (list: unknown[]) => Object.fromEntries(list.map((row) => [(row as Record<string, string>)[name]!, row]));
  return Object.values(fields(by(was), by(mine), by(theirs)) as Record<string, unknown>);
}
