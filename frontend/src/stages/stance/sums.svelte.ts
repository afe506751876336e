// Sums asked of the server, and what each came to.
import { api, type FigureKind, type StanceAsk } from '$lib/api/client';
import type { Car } from '$lib/car.svelte';

export type Kind = StanceAsk['kind'];
interface Answer {
  lines: [string, string][];
  refusal: string;
}

export class Asked {
  answers = $state.raw<Partial<Record<Kind, Answer>>>({});

  constructor(readonly car: Car) {}

  /** Ask for a sum; what it is made of is read first, and a figure that cannot be read is its refusal. */
  async ask(kind: Kind, make: () => StanceAsk | Promise<StanceAsk>): Promise<void> {
    try {
      const { lines } = await api.reckon(this.car.slug, await make());
      this.#show(kind, { lines, refusal: '' });
    } catch (error) {
      this.#show(kind, { lines: [], refusal: (error as Error).message });
    }
  }

  /** A figure in shop notation in its own unit; 0 where nothing is typed. */
  async read(text: string, kind: FigureKind): Promise<number> {
    return text.trim() ? (await api.read(text, kind, this.car.view!.plan.units)).value : 0;
  }

  #show(kind: Kind, answer: Answer): void {
    this.answers = { ...this.answers, [kind]: answer };
  }
}

export const plain = (text: string): number => Number(text.replace(',', '.'));
