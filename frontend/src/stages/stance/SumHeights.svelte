<script lang="ts">
  // Ride heights from other features, or from the angles of arms.
  import type { StanceView } from '$lib/api/client';
  import { CORNER_WORDS, CORNERS } from '$lib/marks';
  import Text from '$parts/form/Text.svelte';
  import Sum from './Sum.svelte';
  import type { Asked } from './sums.svelte';
  import { STATE, SUMS } from './texts';

  type Props = { asked: Asked; features: StanceView['features'] };
  let { asked, features }: Props = $props();
  let given = $state<Record<string, string>>({});
  let arms = $state({ LF: '', RF: '', LR: '', RR: '' });
  const make = () => ({ kind: 'heights' as const, features: { ...given }, arms: { ...arms } });
</script>

{#if features.length}
  <Sum {asked} kind="heights" title={STATE.other} button={STATE.reckon} {make}>
    {#each features as f, i (i)}
      <Text label={f.name} bind:value={() => given[f.name] ?? '', (v) => (given[f.name] = v)} figure hint={f.wanted} />
    {/each}
    {#each CORNERS as c (c)}
      <Text label="{SUMS.armAngle} {CORNER_WORDS[c].toLowerCase()}" bind:value={arms[c]} figure hint="0°" />
    {/each}
  </Sum>
{/if}
