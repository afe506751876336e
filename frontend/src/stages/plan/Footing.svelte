<script lang="ts">
  // What the car stands on: weight, tyres, stops, bars; the lowest points, features to say ride height by, and where stands go.
  import Card from '$parts/form/Card.svelte';
  import Choice from '$parts/form/Choice.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import EndFooting from './EndFooting.svelte';
  import FeatureList from './FeatureList.svelte';
  import PlanFigure from './PlanFigure.svelte';
  import { ENDS, theSheet } from './sheet.svelte';
  import { FOOTING } from './texts';

  const { draft } = $derived(theSheet());
  const footing = $derived(draft.footing);
  const LISTS = ['features', 'low', 'stands'] as const;
</script>

<Card title={FOOTING.title} soft={FOOTING.soft}>
  <Row cols={5}>
    <PlanFigure label={FOOTING.mass} bind:value={footing.mass} kind="mass" at="footing.mass" />
    {#each ['front', 'left'] as const as part (part)}
      <PlanFigure
        label={FOOTING[part]}
        bind:value={() => footing[part], (v) => (footing[part] = v ?? 50)}
        kind="number"
        at="footing.{part}"
      />
    {/each}
    <Choice label={FOOTING.school} options={FOOTING.schools} bind:value={footing.school} />
    <Text label={FOOTING.reason} bind:value={footing.school_reason} max={400} />
    <PlanFigure
      label={FOOTING.margin}
      bind:value={() => footing.margin, (v) => (footing.margin = v ?? 0)}
      kind="length"
    />
  </Row>
  {#each ENDS as end (end)}<EndFooting {end} />{/each}
  {#each LISTS as list (list)}<FeatureList {list} />{/each}
</Card>
