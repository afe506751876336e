<script lang="ts">
  // One field of a described form.
  import type { FormField } from '$lib/kinds';
  import { CORNER_WORDS } from '$lib/marks';
  import Check from './form/Check.svelte';
  import Choice from './form/Choice.svelte';
  import Text from './form/Text.svelte';

  type Props = { field: FormField; points: string[]; value: string | boolean };
  let { field, points, value = $bindable() }: Props = $props();

  const words = (option: string) => (CORNER_WORDS as Record<string, string>)[option] ?? option;
  const options = $derived(Object.fromEntries(field.options.map((o) => [o, words(o)])));
</script>

{#if field.as === 'check'}<Check label={field.label} bind:checked={value as boolean} />
{:else if field.as === 'choice'}<Choice label={field.label} {options} bind:value={value as string} />
{:else if field.as === 'point'}<Choice label={field.label} options={points} empty="" bind:value={value as string} />
{:else}
  {@const figure = field.as === 'figure'}
  <Text label={field.label} bind:value={value as string} {figure} max={figure ? 30 : 80} />
{/if}
