<script lang="ts">
  // Points of the chassis by name: features, lowest points, or where stands go.
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import { newFeature } from './footing';
  import PlanFigure from './PlanFigure.svelte';
  import { theSheet } from './sheet.svelte';
  import { FOOTING } from './texts';

  type Props = { list: 'features' | 'low' | 'stands' };
  let { list }: Props = $props();
  const footing = $derived(theSheet().draft.footing);
  const PARTS = ['station', 'offset', 'height'] as const;
  const takeOut = (i: number) => (footing[list] = footing[list].filter((_, n) => n !== i));
</script>

<h3>{FOOTING.lists[list]}</h3>
<p class="soft">{FOOTING.listsSoft[list]}</p>
{#each footing[list] as row, i (i)}
  <Row cols={4} end>
    <Text label={FOOTING.name} name="{FOOTING.lists[list]} {i + 1}, {FOOTING.name}" bind:value={row.name} />
    {#each PARTS as part (part)}
      <PlanFigure
        label={FOOTING[part]}
        name="{row.name || list} {FOOTING[part]}"
        bind:value={row[part]}
        kind="length"
        at="footing.{list}.{i}.{part}"
      />
    {/each}
    <button type="button" class="button" aria-label="{FOOTING.out} {row.name}" onclick={() => takeOut(i)}
      >{FOOTING.out}</button
    >
  </Row>
{/each}
<p>
  <button type="button" class="button" onclick={() => footing[list].push(newFeature())}>{FOOTING.add[list]}</button>
</p>

<style>
  h3 {
    font-size: 1rem;
  }
</style>
