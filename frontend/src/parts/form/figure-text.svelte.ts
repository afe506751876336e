// The text of a field for a figure: read by the server as shop notation, printed by it in the car's unit.
import { untrack } from 'svelte';
import { api, type FigureKind, type Spans, type Units } from '$lib/api/client';
import { readSoFar, say } from '$lib/figures';

export type Thread = { pitch: number | null; hand: 'left' | 'right' | null };
export type AsTyped = FigureKind | 'number';
export interface Told {
  kind: AsTyped;
  units: Units;
  spans: () => Spans;
  onchange: (value: number | null, typed: string) => void;
  onthread?: ((thread: Thread) => void) | undefined;
}

export class FigureText {
  text = $state('');
  refusal = $state('');
  echo = $state('');
  #own = NaN; // the value this field gave out itself, whose text stays as typed
  #printed = ''; // the units it was printed in
  #asked = 0; // an answer about an earlier text says nothing of the present one
  #underWay = $state(0); // texts that are being read; until they are nothing is printed over them

  /** Print a value that did not come from this field; ``as`` is how it was typed, where that is known. */
  print(value: number | null, kind: AsTyped, units: Units, as: string): void {
    const printed = JSON.stringify(units);
    if (this.#underWay) return;
    const same = value === null ? Number.isNaN(this.#own) : value === this.#own;
    if (same && (printed === this.#printed || untrack(() => this.refusal))) return; // what was refused stays to be mended
    [this.#own, this.#printed, this.echo, this.refusal] = [value ?? NaN, printed, '', ''];
    if (value === null) this.text = '';
    else if (as || kind === 'number') this.text = as || String(value);
    else void say(value, kind, units).then((said) => value === this.#own && (this.text = said));
  }

  /** Read what stands in the field, and tell its value. */
  async read({ kind, units, spans, onchange, onthread }: Told): Promise<void> {
    const [mine, typed, printed] = [++this.#asked, this.text.trim(), JSON.stringify(units)];
    [this.refusal, this.echo] = ['', ''];
    if (!typed) {
      this.#own = NaN;
      return onchange(null, '');
    }
    if (kind === 'number') {
      const number = Number(typed.replace(',', '.'));
      if (!Number.isFinite(number)) this.refusal = `“${typed}” is not a number.`;
      else onchange((this.#own = number), typed);
      return;
    }
    this.#underWay += 1;
    try {
      if (kind === 'toe') await readSoFar(); // it may be told over a span that was typed a moment ago
      const found = await api.read(typed, kind, JSON.parse(printed) as Units, spans());
      if (mine !== this.#asked) return;
      [this.#own, this.#printed, this.echo] = [found.value, printed, found.echo];
      onchange(found.value, found.echo ? typed : '');
      if (found.pitch !== null || found.hand !== null) onthread?.(found);
    } catch (error) {
      if (mine === this.#asked) this.refusal = (error as Error).message;
    } finally {
      this.#underWay -= 1;
    }
  }
}
