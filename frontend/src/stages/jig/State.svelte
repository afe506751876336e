<script lang="ts">
  // Datum, support, level, what was done to the frame, and what its points have come to.
  import { untrack } from 'svelte';
  import type { JigView } from '$lib/api/client';
  import Card from '$parts/form/Card.svelte';
  import Group from '$parts/form/Group.svelte';
  import Panel from '$parts/frame/Panel.svelte';
  import AskPoints from './AskPoints.svelte';
  import Bays from './Bays.svelte';
  import DatumForm from './DatumForm.svelte';
  import HappenedForm from './HappenedForm.svelte';
  import Instruments from './Instruments.svelte';
  import { JigForms } from './jig-forms.svelte';
  import LevelForm from './LevelForm.svelte';
  import StatusForm from './StatusForm.svelte';
  import SupportForm from './SupportForm.svelte';
  import type { Survey } from './survey.svelte';
  import { JIG } from './texts';

  type Props = { survey: Survey; view: JigView };
  let { survey, view }: Props = $props();
  const forms = new JigForms(
    untrack(() => survey),
    () => view,
  );
</script>

<Panel>
  <Card label={JIG.tabs.state}>
    {#if forms.refusal}<p class="no" role="alert">{forms.refusal}</p>{/if}
    <DatumForm {forms} {view} />
    {#if view.moved.length}
      <Group title={JIG.sinceHead} soft="{JIG.since(view.since)}.">
        <ul class="plain">
          {#each view.moved as line, i (i)}<li>{line}</li>{/each}
        </ul>
      </Group>
    {/if}
    <Group title={JIG.square}>
      <Bays {view} />
      <ul class="plain">
        {#each view.square as line, i (i)}<li>{line}</li>{:else}<li class="soft">{JIG.squareNone}</li>{/each}
        {#each view.notes as line, i (i)}<li class="soft">{line}</li>{/each}
      </ul>
    </Group>
    <AskPoints {forms} />
    {#if view.level}<LevelForm {forms} level={view.level} />{/if}
    <Instruments {forms} {view} />
    <HappenedForm {forms} />
    <StatusForm {forms} {view} />
    <SupportForm {forms} {view} />
  </Card>
</Panel>

<style>
  ul {
    font-size: var(--type-small);
  }
</style>
