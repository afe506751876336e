<script lang="ts">
  // A field for a figure in shop notation; holds mm, degrees, turns, rates or a plain number, prints it in the car's unit.
  import { api, type FigureKind, type Spans, type Units } from '$lib/api/client';
  import { reading, say } from '$lib/figures';

  type Thread = { pitch: number | null; hand: 'left' | 'right' | null };
  type Props = {
    label: string;
    name?: string;
    value: number | null;
    kind: FigureKind | 'number';
    units: Units;
    why?: string;
    problem?: string;
    bare?: boolean;
    spans?: Spans;
    as?: string;
    onchange: (value: number | null, typed: string) => void;
    onthread?: (thread: Thread) => void;
  };
  let {
    label,
    name = label,
    value,
    kind,
    units,
    why = '',
    problem = '',
    bare = false,
    spans = {},
    as = '',
    onchange,
    onthread,
  }: Props = $props();

  let text = $state('');
  let refusal = $state('');
  let echo = $state('');
  let own = NaN; // the value this field gave out itself, whose text stays as typed
  let printed = ''; // the units it was printed in

  $effect(() => {
    const [shown, now] = [value, { ...units }];
    const in_ = JSON.stringify(now);
    if (shown === own && in_ === printed) return;
    [own, printed] = [shown ?? NaN, in_];
    echo = '';
    if (shown === null) text = '';
    else if (as)
      text = as; // as it was typed
    else if (kind === 'number') text = String(shown);
    else void say(shown, kind, now).then((said) => shown === own && (text = said));
  });

  let asked = 0; // an answer about an earlier text says nothing of the present one
  async function read(): Promise<void> {
    const mine = ++asked;
    [refusal, echo] = ['', ''];
    if (!text.trim()) {
      own = NaN;
      return onchange(null, '');
    }
    if (kind === 'number') {
      const number = Number(text.replace(',', '.'));
      if (!Number.isFinite(number)) refusal = `“${text}” is not a number.`;
      else onchange((own = number), text.trim());
      return;
    }
    const typed = text.trim();
    try {
      const found = await api.read(typed, kind, units, spans);
      if (mine !== asked) return;
      [own, echo] = [found.value, found.echo];
      onchange(found.value, found.echo ? typed : '');
      if (found.pitch !== null || found.hand !== null) onthread?.(found);
    } catch (error) {
      if (mine === asked) refusal = (error as Error).message;
    }
  }
</script>

<label data-bare={bare || undefined}>
  <span class:hidden={bare}>{label}</span>
  <input
    class="fig"
    bind:value={text}
    onchange={() => void reading(read())}
    aria-label={name}
    aria-invalid={refusal || problem ? 'true' : undefined}
    autocomplete="off"
    maxlength="60"
  />
  {#if refusal || problem}<small class="no" role="alert">{refusal || problem}</small>{:else if echo}<small role="status"
      >{echo}</small
    >{:else if why}<small>{why}</small>{/if}
</label>

<style>
  label {
    display: grid;
    gap: 1px;
    align-content: start;
    min-width: 0;
  }
  span,
  small {
    color: var(--ink-soft);
    font-size: 0.8125rem;
    line-height: 1.2;
  }
  input {
    min-height: var(--touch);
    width: 100%;
    border: 1px solid var(--steel-dark);
    border-radius: var(--round);
    background: #fff;
    padding: 2px 8px;
  }
  input[aria-invalid] {
    border: 2px solid var(--rust);
  }
  .no {
    color: var(--rust);
    font-weight: 700;
  }
</style>
