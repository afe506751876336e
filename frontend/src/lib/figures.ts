// Printing figures of a form: asked of the server in one go, however many fields want it at once.
import { api, type FigureKind, type Units } from './api/client';

type Asked = { value: number; kind: FigureKind; units: Units; tell: (said: string) => void };
let asked: Asked[] = [];
const MOST = 400; // in one question

export function say(value: number, kind: FigureKind, units: Units): Promise<string> {
  return new Promise((tell) => {
    if (asked.length === 0) queueMicrotask(askAll);
    asked.push({ value, kind, units, tell });
  });
}

async function askAll(): Promise<void> {
  const all = asked;
  asked = [];
  for (const units of new Set(all.map((a) => JSON.stringify(a.units)))) {
    const same = all.filter((a) => JSON.stringify(a.units) === units);
    for (let i = 0; i < same.length; i += MOST) await ask(same.slice(i, i + MOST), units);
  }
}

async function ask(same: Asked[], units: string): Promise<void> {
  try {
    const said = await api.say(
      same.map(({ value, kind }) => ({ value, kind })),
      JSON.parse(units) as Units,
    );
    same.forEach((a, i) => a.tell(said[i] ?? ''));
  } catch {
    same.forEach((a) => a.tell(String(a.value)));
  }
}

// Figures of forms that were typed and are being read; a form is sent when none is left.
const beingRead = new Set<Promise<void>>();

export function reading(read: Promise<void>): Promise<void> {
  beingRead.add(read);
  return read.finally(() => beingRead.delete(read));
}

/** Wait for what is being read at this moment. */
export async function readSoFar(): Promise<void> {
  await Promise.allSettled([...beingRead]);
}

export async function allRead(): Promise<void> {
  while (beingRead.size) await Promise.all(beingRead);
}
