// Words and order shared by every stage; figures and verdicts come from the server.
import type { CarView, Corner, MarkView, MarkWord } from './api/client';

export const CORNERS: Corner[] = ['LF', 'RF', 'LR', 'RR'];
export const CORNER_WORDS: Record<Corner, string> = {
  LF: 'Left front',
  RF: 'Right front',
  LR: 'Left rear',
  RR: 'Right rear',
};
export const isLeft = (corner: Corner) => corner.startsWith('L');
export const isFront = (corner: Corner) => corner.endsWith('F');
export const axle = (view: CarView, corner: Corner) => (isFront(corner) ? view.plan.front : view.plan.rear);

export const markOf = (view: CarView, mark: string): MarkView => {
  const found = view.marks.find((m) => m.mark === mark);
  if (!found) throw new Error(`the car view has no mark ${mark}`);
  return found;
};

export const wordFor = (state: MarkWord | null): string => state ?? 'no aim';
export const UNIT_WORDS = {
  mm: 'mm and degrees',
  inch_fraction: 'inch fractions and degrees',
  inch_decimal: 'decimal inches and degrees',
} as const;

/** The name of a point as it is said: what it begins with where it belongs to no corner is not. */
export const spoken = (name: string): string => name.replace(/^frame\./, '').replaceAll('.', ' ');
