<script lang="ts">
  // The springs and dampers of each end; and the names of points and of what they may stand on, for every field that asks for one.
  import Card from '$parts/form/Card.svelte';
  import { newSpring, pointsOf } from './linkage-parts';
  import { ENDS, theSheet } from './sheet.svelte';
  import SpringForm from './SpringForm.svelte';
  import { PLAN, SPRINGS } from './texts';

  const { draft } = $derived(theSheet());
  const STANDS = ['car', 'upright', 'rocker', 'lower', 'upper', 'arm', 'hinge'];
</script>

<Card title={SPRINGS.title} soft={SPRINGS.soft}>
  {#each ENDS as end (end)}
    {@const linkage = draft.linkages[end]}
    {#if linkage}
      <h3>{PLAN.axles[end]}</h3>
      <datalist id="{end}-points"
        >{#each pointsOf(draft.points, end) as name (name)}<option value={name}></option>{/each}</datalist
      >
      {#each linkage.springs ?? [] as spring, i (i)}
        <SpringForm {end} {spring} ontake={() => (linkage.springs = linkage.springs!.filter((_, n) => n !== i))} />
      {/each}
      <p>
        <button
          type="button"
          class="button"
          onclick={() => (linkage.springs = [...(linkage.springs ?? []), newSpring(SPRINGS.fresh)])}
          >{SPRINGS.add}</button
        >
      </p>
    {/if}
  {/each}
  <datalist id="stands"
    >{#each STANDS as on (on)}<option value={on}></option>{/each}</datalist
  >
</Card>

<style>
  h3 {
    font-size: 1rem;
  }
</style>
