<script lang="ts">
  // Wheelbase, and track, rim, tyre and hubs of either axle.
  import Card from '$parts/form/Card.svelte';
  import Row from '$parts/form/Row.svelte';
  import PlanFigure from './PlanFigure.svelte';
  import { ENDS, theSheet } from './sheet.svelte';
  import { PLAN } from './texts';

  const { draft } = $derived(theSheet());
  const PARTS = ['track', 'rim_flange_diameter', 'tyre_diameter', 'hub_width'] as const;
</script>

<Card title={PLAN.dimensions} label="">
  <Row cols={5}><PlanFigure label={PLAN.wheelbase} bind:value={draft.wheelbase} kind="length" at="wheelbase" /></Row>
  {#each ENDS as end (end)}
    <Row cols={5} top>
      <h3>{PLAN.axles[end]}</h3>
      {#each PARTS as part (part)}
        <PlanFigure
          label={PLAN.axle[part]}
          name="{PLAN.axles[end]}, {PLAN.axle[part]}"
          why={PLAN.axleWhy[part]}
          bind:value={draft[end][part]}
          kind="length"
          at="{end}.{part}"
        />
      {/each}
    </Row>
  {/each}
</Card>

<style>
  h3 {
    font-size: 1rem;
    padding-top: 24px;
  }
</style>
