<script lang="ts" generics="V extends string">
  // One of several, from a list that opens.
  import { spoken } from '$lib/marks';
  import Field from './Field.svelte';

  type Props = {
    label: string;
    name?: string;
    options: Readonly<Partial<Record<V, string>>> | readonly V[];
    value: V;
    empty?: string;
    problem?: string;
    onpick?: (value: V) => void;
  };
  let { label, name, options, value = $bindable(), empty, problem = '', onpick }: Props = $props();

  const rows = $derived<[string, string][]>(
    Array.isArray(options) ? options.map((o: V) => [o, spoken(o)]) : Object.entries(options as Record<string, string>),
  );
  function pick(event: Event & { currentTarget: HTMLSelectElement }): void {
    value = event.currentTarget.value as V;
    onpick?.(value);
  }
</script>

<Field {label} {problem}>
  <select class="field" {value} aria-label={name} aria-invalid={problem ? true : undefined} onchange={pick}>
    {#if empty !== undefined}<option value="">{empty}</option>{/if}
    {#each rows as [key, words] (key)}<option value={key}>{words}</option>{/each}
  </select>
</Field>
