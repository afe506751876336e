// Kinds of entries and of marks as the core describes them: forms, labels, units, and the order they are shown in.
import type { Quantity, What } from './api/client';
import { TOLD } from './api/kinds.generated';

export interface FormField {
  readonly name: string;
  readonly label: string;
  readonly as: 'figure' | 'text' | 'check' | 'choice' | 'point' | 'foot' | 'tool' | 'adjuster';
  readonly options: readonly string[];
  readonly needed: boolean;
  readonly preset: unknown;
}
export interface KindForm {
  readonly title: string;
  readonly at: string;
  readonly fields: readonly FormField[];
}
export interface MarkKind {
  readonly label: string;
  readonly short: string;
  readonly unit: 'mm' | 'deg' | 'kg' | '%';
  readonly read: string | null;
  readonly plus: string;
  readonly ways: Readonly<Record<string, string>>;
  readonly only_aimed: boolean;
  readonly at: readonly string[];
}

export type Scene =
  'string' | 'out' | 'gauge' | 'plate' | 'upright' | 'plumb' | 'bar' | 'level' | 'stepped' | 'across' | 'scale';
export interface QuantityKind {
  readonly scene: Scene;
  readonly mistake: string;
  readonly short: string;
  readonly words: string;
  readonly spot: string;
  readonly kind: 'length' | 'angle' | 'mass';
  readonly measures: 'length' | 'angle' | 'mass' | 'steer';
  readonly marks: readonly string[];
  readonly turned: boolean;
  readonly by_eye: boolean;
}

export const QUANTITIES: Record<Quantity, QuantityKind> = TOLD.quantities as Record<Quantity, QuantityKind>;
export const FORMS = TOLD.forms as Record<string, KindForm>;
export const MARK_KINDS = TOLD.marks.kinds as Record<string, MarkKind>;
export const CORNER_KINDS: readonly string[] = TOLD.marks.corner;
export const WHOLE_MARKS: readonly string[] = TOLD.marks.whole;

/** Kinds whose forms stand at a place, in the order in which they are described. */
export const formsAt = (place: string): string[] => Object.keys(FORMS).filter((k) => FORMS[k]!.at === place);

export const placeOf = (mark: string): string => mark.split('.')[0]!;
export const markKindOf = (mark: string): string => mark.split('.')[1]!;
/** Words as they begin a sentence. */
export const capital = (words: string): string => `${words[0]?.toUpperCase() ?? ''}${words.slice(1)}`;

/** What a mark of the car as a whole is called: its place, if it has one, and its kind; in full, or ``short``. */
export const wholeName = (mark: string, size: 'label' | 'short' = 'short'): string => {
  const [place, kind] = [placeOf(mark), MARK_KINDS[markKindOf(mark)]![size]];
  return capital(place === 'car' ? kind : `${place} ${kind}`);
};
/** What the marks of a kind are called at the corners. */
export const cornerName = (kind: string, size: 'label' | 'short' = 'short'): string => capital(MARK_KINDS[kind]![size]);

/** The kinds of marks that are read at a corner. */
export const kindsAt = (corner: string): string[] => CORNER_KINDS.filter((k) => MARK_KINDS[k]!.at.includes(corner));

/** What is empty in a form, field by field. */
export const emptyForm = (kind: string): Record<string, string | boolean> =>
  Object.fromEntries(
    FORMS[kind]!.fields.map((f) => [
      f.name,
      f.as === 'check' ? f.preset === true : f.as === 'choice' ? String(f.preset ?? f.options[0]) : '',
    ]),
  );

/** An entry from what stands in its form. */
export const entryOf = (kind: string, values: Record<string, string | boolean>): What =>
  ({ kind, version: 1, ...values }) as unknown as What;

/** Whether all that is needed stands in a form. */
export const isWhole = (kind: string, values: Record<string, string | boolean>): boolean =>
  FORMS[kind]!.fields.every((f) => !f.needed || typeof values[f.name] === 'boolean' || String(values[f.name]).trim());
