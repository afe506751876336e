<script lang="ts">
  // Layout of each end and its points, with the drawing beside the table: the point in hand lights up.
  import Card from '$parts/form/Card.svelte';
  import Pressed from '$parts/form/Pressed.svelte';
  import LayoutTiles from './LayoutTiles.svelte';
  import LinkageFacts from './LinkageFacts.svelte';
  import { LinkagePoints } from './linkage-points.svelte';
  import LoadsForm from './LoadsForm.svelte';
  import PointPaste from './PointPaste.svelte';
  import PointTable from './PointTable.svelte';
  import { theSheet } from './sheet.svelte';
  import { PLAN } from './texts';

  const held = new LinkagePoints(theSheet());
</script>

<Card title={PLAN.points} soft={PLAN.pointsSoft}>
  <Pressed label={PLAN.layout} options={PLAN.axles} value={held.end} onpick={(end) => (held.end = end)} />
  <LayoutTiles {held} />
  {#if held.linkage && held.layout}
    <LinkageFacts {held} linkage={held.linkage} />
    {#each held.problems as sentence, i (i)}<p class="no" role="alert">{sentence}</p>{/each}
    <div>
      <PointTable {held} />
      <PointPaste {held} linkage={held.linkage} layout={held.layout} />
    </div>
  {/if}
  <LoadsForm />
</Card>

<style>
  div {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: var(--gap-3);
    align-items: start;
  }
  @media (max-width: 1000px) {
    div {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
