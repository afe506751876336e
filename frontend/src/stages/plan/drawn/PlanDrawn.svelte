<script lang="ts">
  // A plan given on its drawing: measuring on paper. The drawing is the form, the tape asks for one figure after another.
  import { allRead } from '$lib/figures';
  import Choice from '$parts/form/Choice.svelte';
  import Card from '$parts/form/Card.svelte';
  import Pressed from '$parts/form/Pressed.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import Panel from '$parts/frame/Panel.svelte';
  import Stage from '$parts/frame/Stage.svelte';
  import { link } from '$lib/router.svelte';
  import Tape from '$parts/tape/Tape.svelte';
  import DraftNote from '../DraftNote.svelte';
  import From from '../From.svelte';
  import LayoutTiles from '../LayoutTiles.svelte';
  import { LinkagePoints } from '../linkage-points.svelte';
  import { ENDS, theSheet } from '../sheet.svelte';
  import { DRAWN, PLAN } from '../texts';
  import Answers from './Answers.svelte';
  import PlanAbove from './PlanAbove.svelte';
  import { PlanDesk } from './plan-desk.svelte';

  type Props = { onfigures: () => void };
  let { onfigures }: Props = $props();
  const sheet = theSheet();
  const { draft } = $derived(sheet);
  const desk = new PlanDesk(sheet);
  const held = new LinkagePoints(sheet);
  /** Nothing is kept while a figure stands there that could not be read: it would be missing, and nobody told. */
  async function keep(): Promise<void> {
    await allRead();
    const unread = Object.keys(desk.wrong).find((path) => desk.wrong[path]?.why);
    if (unread === undefined && !desk.typed.trim()) return sheet.keep();
    sheet.sentence = unread === undefined ? DRAWN.stillTyped : DRAWN.unread;
    if (unread !== undefined) desk.open(unread);
  }
  const amiss = $derived(sheet.sentence || sheet.at('name'));
</script>

{#snippet bar()}
  <Pressed
    label={DRAWN.tabsLabel}
    options={DRAWN.tabs}
    value={'drawing' as keyof typeof DRAWN.tabs}
    onpick={(to) => to === 'figures' && onfigures()}
  />
  <Pressed label={DRAWN.chaptersLabel} options={DRAWN.chapters} value={desk.chapter} onpick={(c) => desk.turnTo(c)} />
{/snippet}
{#snippet foot()}
  <Tape
    {desk}
    title={desk.ask.title}
    how={desk.ask.how}
    label={DRAWN.figure}
    placeholder={desk.like}
    note={desk.ask.value === null
      ? DRAWN.unit(desk.typing === 'angle' ? DRAWN.degrees : PLAN.unitNames[draft.units.system ?? 'mm'])
      : desk.shown(desk.ask)}
    hooks={desk.hooks}
  />
{/snippet}

<Stage columns="56fr 44fr" {bar} {foot}>
  <PlanAbove {desk} />
  <Panel>
    <Card title={sheet.before ? PLAN.revise(sheet.before.name) : PLAN.begin} label="">
      <Row cols={2} top>
        <Text label={PLAN.name} bind:value={draft.name} problem={sheet.at('name')} />
        <Choice label={PLAN.units} options={PLAN.unitNames} bind:value={draft.units.system!} />
      </Row>
      <DraftNote />
      {#if amiss}<p class="no" role="alert">{amiss}</p>{/if}
      <Row cols={2}>
        {#if sheet.car}<a class="button" href="/cars/{sheet.car.slug}" onclick={() => void sheet.letGo()} use:link
            >{PLAN.cancel}</a
          >{:else}<span></span>{/if}
        <button type="button" class="button" data-main onclick={() => void keep()}
          >{sheet.unusual ? PLAN.anyway : sheet.car ? PLAN.save : PLAN.start}</button
        >
      </Row>
    </Card>
    <Answers {desk} />
    <Card title={PLAN.layout} label="">
      <Pressed
        label={PLAN.layout}
        options={PLAN.axles}
        value={held.end}
        onpick={(end) => (held.end = ENDS.find((e) => e === end)!)}
      />
      <LayoutTiles {held} />
    </Card>
    {#if !sheet.car}<From />{/if}
  </Panel>
</Stage>
