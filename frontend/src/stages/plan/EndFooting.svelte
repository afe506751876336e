<script lang="ts">
  // What one end stands on: tyre rate, unsprung mass, travel to its stops, and its anti-roll bar.
  import Row from '$parts/form/Row.svelte';
  import type { End } from './draft';
  import { END_FIGURES, endFigures } from './footing';
  import PlanFigure from './PlanFigure.svelte';
  import { theSheet } from './sheet.svelte';
  import { FOOTING, PLAN } from './texts';

  type Props = { end: End };
  let { end }: Props = $props();
  const footing = $derived(theSheet().draft.footing.ends[end]);
  const BAR = ['diameter', 'bore', 'length', 'arm'] as const;
</script>

<h3>{PLAN.axles[end]}</h3>
<Row cols={5}>
  {#each endFigures as part (part)}
    <PlanFigure
      label={FOOTING[part]}
      name="{end}, {FOOTING[part]}"
      bind:value={footing[part]}
      kind={END_FIGURES[part]}
      at="footing.{part}"
    />
  {/each}
  {#each BAR as part (part)}
    <PlanFigure
      label={FOOTING.bar[part]}
      name="{end}, {FOOTING.bar[part]}"
      bind:value={footing.bar[part]}
      kind="length"
      at={part === 'diameter' ? 'footing.bar' : ''}
    />
  {/each}
</Row>

<style>
  h3 {
    font-size: 1rem;
  }
</style>
