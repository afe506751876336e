<script lang="ts">
  // What to measure: a list worked out for the tools and the wanted doubt, or points picked on the drawing; and how it is read.
  import type { JigView } from '$lib/api/client';
  import Card from '$parts/form/Card.svelte';
  import Panel from '$parts/frame/Panel.svelte';
  import Bays from './Bays.svelte';
  import MeasureList from './MeasureList.svelte';
  import MeasureWay from './MeasureWay.svelte';
  import Propose from './Propose.svelte';
  import type { Survey } from './survey.svelte';
  import { JIG } from './texts';

  type Props = { survey: Survey; view: JigView };
  let { survey, view }: Props = $props();
</script>

<Panel>
  <Card label={JIG.tabs.measure}>
    {#if view.pickups.length}<Bays {view} />{/if}
    <Propose {survey} />
    <MeasureWay {survey} names={view.points.map((p) => p.name)} />
    {#if survey.list.length}<MeasureList {survey} />{/if}
  </Card>
</Panel>
