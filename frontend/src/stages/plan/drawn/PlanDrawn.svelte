<script lang="ts">
  // A plan given on its drawing: measuring on paper. The drawing is the form, the tape asks for one figure after another.
  import Choice from '$parts/form/Choice.svelte';
  import Card from '$parts/form/Card.svelte';
  import Pressed from '$parts/form/Pressed.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import Panel from '$parts/frame/Panel.svelte';
  import Stage from '$parts/frame/Stage.svelte';
  import { hands } from '$lib/hands.svelte';
  import { link } from '$lib/router.svelte';
  import Tape from '$parts/tape/Tape.svelte';
  import AimStart from '../AimStart.svelte';
  import DraftNote from '../DraftNote.svelte';
  import From from '../From.svelte';
  import { LinkagePoints } from '../linkage-points.svelte';
  import { isFront } from '$lib/marks';
  import type { Corner } from '$lib/api/client';
  import { theSheet } from '../sheet.svelte';
  import { DRAWN, PLAN } from '../texts';
  import Wanting from '../Wanting.svelte';
  import AdjusterCard from './AdjusterCard.svelte';
  import AimFrom from './AimFrom.svelte';
  import Chapters from './Chapters.svelte';
  import EndCard from './EndCard.svelte';
  import PlanAbove from './PlanAbove.svelte';
  import PlanCorner from './PlanCorner.svelte';
  import WaysCard from './WaysCard.svelte';
  import { PlanDesk } from './plan-desk.svelte';

  type Props = { onfigures: () => void };
  let { onfigures }: Props = $props();
  const sheet = theSheet();
  const { draft } = $derived(sheet);
  const desk = new PlanDesk(sheet);
  const held = new LinkagePoints(sheet);
  /** The end whose linkage is on the plate. */
  const end = $derived.by(() => {
    if (desk.chapter === 'front' || desk.chapter === 'rear') return desk.chapter;
    const corner = /^adjusters\.(\w\w)\./.exec(desk.ask.path)?.[1];
    return desk.chapter === 'adjusters' && corner ? (isFront(corner as Corner) ? 'front' : 'rear') : null;
  });
  const layout = $derived(end ? sheet.layout(end) : undefined);
  const linkage = $derived(end ? draft.linkages[end] : null);
  /** The point that the adjuster in hand moves. */
  const moved = $derived(
    draft.adjusters.find((a) => desk.ask.path.startsWith(`adjusters.${a.id}.`))?.moves?.name.replace(/^\w+\./, '') ??
      '',
  );
  $effect(() => {
    if (desk.chapter === 'front' || desk.chapter === 'rear') held.end = desk.chapter;
  });
  const first = $derived(!sheet.car && hands.small); // on a small page what a new car is called comes before its drawing
  const doubt = $derived(sheet.doubts.at(-1)); // asked about at the key, not only when the plan is kept
  const amiss = $derived(sheet.sentence || sheet.at('name'));
</script>

{#snippet naming()}
  <Row cols={2} top>
    <Text label={PLAN.name} bind:value={draft.name} problem={sheet.at('name')} />
    <Choice label={PLAN.units} options={PLAN.unitNames} bind:value={draft.units.system!} />
    <Text label={PLAN.about} bind:value={draft.about} max={200} />
  </Row>
{/snippet}
{#snippet bar()}
  {#if first}<div>{@render naming()}</div>{/if}
  <Pressed
    label={DRAWN.tabsLabel}
    options={DRAWN.tabs}
    value={'drawing' as keyof typeof DRAWN.tabs}
    onpick={(to) => to === 'figures' && onfigures()}
  />
  {#if !first}<p class="soft">{DRAWN.begins}</p>{/if}
{/snippet}
{#snippet foot()}
  <Tape
    {desk}
    title={desk.ask.title}
    how={desk.ask.how}
    label={DRAWN.figure}
    placeholder={desk.like}
    note={desk.shown(desk.ask) || DRAWN.unitOf(desk.ask.kind, draft.units.system ?? 'mm')}
    caution={doubt?.what ?? ''}
    hooks={desk.hooks}
  />
{/snippet}

<Stage columns="56fr 44fr" {bar} {foot}>
  {#if end && layout && linkage}<PlanCorner {desk} {end} {layout} {linkage} lit={moved} />{:else}<PlanAbove
      {desk}
    />{/if}
  <Panel>
    <Card title={sheet.before ? PLAN.revise(sheet.before.name) : PLAN.begin} label="">
      {#if !first}{@render naming()}{/if}
      <DraftNote />
      {#if amiss}<p class="no" role="alert">{amiss}</p>{/if}
      {#each sheet.problems.slice(0, 4) as problem, i (i)}
        <button type="button" class="button" onclick={() => desk.openAt(problem.path)}
          >{desk.nameOf(problem.path)}: {problem.sentence}</button
        >
      {/each}
      <Row cols={2}>
        {#if sheet.car}<a class="button" href="/cars/{sheet.car.slug}" onclick={() => void sheet.letGo()} use:link
            >{PLAN.cancel}</a
          >{:else}<span></span>{/if}
        <button type="button" class="button" data-main onclick={() => void desk.keep()}
          >{sheet.unusual || (sheet.told && sheet.sentence) ? PLAN.anyway : sheet.car ? PLAN.save : PLAN.start}</button
        >
      </Row>
      {#if !sheet.car}
        <p>
          <button type="button" class="button" onclick={() => void sheet.beginWithFrame()}>{PLAN.startFrame}</button>
          <span class="soft">{PLAN.startFrameSoft}</span>
        </p>
      {/if}
    </Card>
    <Chapters {desk}>
      {#if desk.chapter === 'front' || desk.chapter === 'rear'}<EndCard {desk} {held} />
      {:else if desk.chapter === 'adjusters'}<AdjusterCard {desk} />
      {:else if desk.chapter === 'ways'}<WaysCard {desk} />
      {:else if desk.chapter === 'aims' || desk.chapter === 'build'}<Row cols={2} top><AimStart /></Row><AimFrom
          {desk}
        />{/if}
    </Chapters>
    {#if sheet.wanting.length}<Wanting rows={sheet.wanting} onopen={(path) => desk.openAt(path)} />{/if}
    {#if !sheet.car}<From />{/if}
  </Panel>
</Stage>
