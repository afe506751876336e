<script lang="ts">
  // The readings of the frame, newest first: how each agrees with the rest, and which is wrong.
  import type { JigView } from '$lib/api/client';
  import Card from '$parts/form/Card.svelte';
  import Panel from '$parts/frame/Panel.svelte';
  import ReadingLine from './ReadingLine.svelte';
  import type { Survey } from './survey.svelte';
  import { JIG } from './texts';

  type Props = { survey: Survey; view: JigView };
  let { survey, view }: Props = $props();
  let refusal = $state('');
  const sorted = $derived(
    [...view.readings].sort(
      (a, b) => Number(!!b.wrong) - Number(!!a.wrong) || Number(b.counts) - Number(a.counts) || b.number - a.number,
    ),
  );
</script>

<Panel>
  <Card title={JIG.tabs.readings} beside={view.sigma0 === null ? '' : JIG.sigma(view.sigma0, view.dof)}>
    {#if refusal}<p class="no" role="alert">{refusal}</p>{/if}
    {#if !view.readings.length}<p class="soft">{JIG.noReadings}</p>{/if}
    <ul class="plain">
      {#each sorted as reading (reading.number)}
        <ReadingLine
          {reading}
          onask={() => survey.ask(reading.reading, reading.points)}
          onstrike={async () => (refusal = await survey.strikeOut(reading.id))}
        />
      {/each}
    </ul>
  </Card>
</Panel>
