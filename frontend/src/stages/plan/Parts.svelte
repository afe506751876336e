<script lang="ts">
  // What else hangs on the linkages: rocker, bar, halfshaft, torsion bars, and how far joints may work.
  import Card from '$parts/form/Card.svelte';
  import EndParts from './EndParts.svelte';
  import { ENDS, theSheet } from './sheet.svelte';
  import { PARTS } from './texts';

  const { draft } = $derived(theSheet());
</script>

<Card title={PARTS.title} soft={PARTS.soft}>
  {#each ENDS as end (end)}
    {#if draft.linkages[end]}<EndParts {end} linkage={draft.linkages[end]} />{/if}
  {/each}
</Card>
