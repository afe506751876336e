<script lang="ts">
  // A field for a figure in shop notation; holds mm, degrees, turns, rates or a plain number, prints it in the car's unit.
  import type { Spans, Units } from '$lib/api/client';
  import { reading } from '$lib/figures';
  import Field from './Field.svelte';
  import { type AsTyped, FigureText, type Thread } from './figure-text.svelte';

  type Props = {
    label: string;
    name?: string;
    value: number | null;
    kind: AsTyped;
    units: Units;
    why?: string;
    problem?: string;
    amiss?: boolean; // what is wrong is told elsewhere
    bare?: boolean;
    spans?: Spans;
    as?: string;
    onchange?: (value: number | null, typed: string) => void;
    onthread?: (thread: Thread) => void;
  };
  let {
    label,
    name = label,
    value = $bindable(),
    kind,
    units,
    why = '',
    problem = '',
    amiss = false,
    bare = false,
    spans = {},
    as = '',
    onchange,
    onthread,
  }: Props = $props();

  const field = new FigureText();
  $effect(() => field.print(value, kind, { ...units }, as));
  const tell = (found: number | null, typed: string) => ((value = found), onchange?.(found, typed));
</script>

<Field {label} {why} {bare} problem={field.refusal || problem} echo={field.echo}>
  <input
    class="field fig"
    bind:value={field.text}
    onchange={() => void reading(field.read({ kind, units, spans: () => spans, onchange: tell, onthread }))}
    aria-label={name}
    aria-invalid={field.refusal || problem || amiss ? 'true' : undefined}
    autocomplete="off"
    maxlength="60"
  />
</Field>
