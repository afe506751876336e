<script lang="ts">
  // Around the weld: conditions before it, the order of joints, what is accepted; clearances; and the body on the jig.
  import { untrack } from 'svelte';
  import type { JigView } from '$lib/api/client';
  import { FORMS, formsAt } from '$lib/kinds';
  import Card from '$parts/form/Card.svelte';
  import Folded from '$parts/form/Folded.svelte';
  import Group from '$parts/form/Group.svelte';
  import KindForm from '$parts/KindForm.svelte';
  import Panel from '$parts/frame/Panel.svelte';
  import AcceptForm from './AcceptForm.svelte';
  import Bracing from './Bracing.svelte';
  import HoldsForm from './HoldsForm.svelte';
  import { JigForms } from './jig-forms.svelte';
  import JointsForm from './JointsForm.svelte';
  import StandForm from './StandForm.svelte';
  import type { Survey } from './survey.svelte';
  import { JIG, WELD } from './texts';

  type Props = { survey: Survey; view: JigView };
  let { survey, view }: Props = $props();
  const forms = new JigForms(
    untrack(() => survey),
    () => view,
  );
  const works = $derived(view.works);
  const BODY = formsAt('weld').filter((kind) => kind !== 'gap'); // clearances stand by themselves
</script>

<Panel>
  <Card label={JIG.tabs.weld}>
    {#if forms.refusal}<p class="no" role="alert">{forms.refusal}</p>{/if}
    <HoldsForm {forms} holds={works.holds} />
    <JointsForm {forms} {works} />
    <AcceptForm {forms} {view} />
    <Group title={WELD.gaps}>
      <ul class="plain">
        {#each works.gaps as line, i (i)}<li>{line}</li>{:else}<li class="soft">{WELD.noGaps}</li>{/each}
      </ul>
      <Folded title={FORMS.gap!.title}>
        <KindForm kind="gap" points={forms.names} button={WELD.read} record={forms.record} />
      </Folded>
    </Group>
    <Group title={WELD.body}>
      {#each works.body as line, i (i)}<p>{line}</p>{/each}
      <p class="soft">{WELD.bodySoft}</p>
      {#each BODY as kind (kind)}
        <Folded title={FORMS[kind]!.title}>
          <KindForm {kind} points={forms.names} button={WELD.read} record={forms.record} />
        </Folded>
      {/each}
      <Folded title={WELD.support}><StandForm {forms} /></Folded>
      <Bracing {forms} />
    </Group>
  </Card>
</Panel>
