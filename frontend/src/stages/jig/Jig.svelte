<script lang="ts">
  // Stage Jig: the frame drawn as surveyed, what to measure, what each error will do, and the record of what was done to it.
  import { untrack } from 'svelte';
  import type { Car } from '$lib/car.svelte';
  import { link } from '$lib/router.svelte';
  import Pressed from '$parts/form/Pressed.svelte';
  import Notice from '$parts/frame/Notice.svelte';
  import Stage from '$parts/frame/Stage.svelte';
  import { BAY, Here } from '../plan/here/here.svelte';
  import PlanTape from '../plan/here/Tape.svelte';
  import Wanted from '../plan/here/Wanted.svelte';
  import BayDrawing from './BayDrawing.svelte';
  import JigDrawing from './JigDrawing.svelte';
  import JigSays from './JigSays.svelte';
  import JigTape from './JigTape.svelte';
  import Measure from './Measure.svelte';
  import Pickups from './Pickups.svelte';
  import Readings from './Readings.svelte';
  import State from './State.svelte';
  import { Survey } from './survey.svelte';
  import { JIG } from './texts';
  import Weld from './Weld.svelte';

  type Props = { car: Car };
  let { car }: Props = $props();
  const survey = new Survey(untrack(() => car));
  $effect(() => {
    void car.view?.number; // whatever was written down may change the frame
    return untrack(() => survey.refresh());
  });
  const here = new Here(untrack(() => car));
  const view = $derived(survey.view);
  const PANELS = { measure: Measure, pickups: Pickups, readings: Readings, weld: Weld, state: State } as const;
  const Panel = $derived(PANELS[survey.tab]);
  const empty = $derived(view && !view.points.length);
  $effect(() => {
    if (empty) untrack(() => here.ask(BAY)); // what an empty page asks for first
  });
  // A frame that is nothing but its corners: what to tape is worked out at once.
  $effect(() => {
    if (view?.points.length && view.points.every((p) => p.name.startsWith('frame.rail.')) && !view.readings.length)
      untrack(() => void survey.propose(survey.usual, true));
  });
  const taped = $derived(view?.points.length && (survey.tab === 'measure' || survey.tab === 'readings'));
</script>

{#snippet bar()}
  <Pressed label={JIG.title} options={JIG.tabs} value={survey.tab} onpick={(tab) => (survey.tab = tab)} />
  {#if view}<JigSays {view} />{/if}
{/snippet}
{#snippet above()}<Wanted {here} stage="Jig" />{/snippet}
{#snippet foot()}{#if here.path}<PlanTape {here} />{:else}<JigTape {survey} />{/if}{/snippet}

<Stage columns="54fr 46fr" {bar} {above} foot={here.path || taped ? foot : undefined}>
  {#if !view}<Notice says={survey.away || '…'} alarming={Boolean(survey.away)} />
  {:else if !view.points.length}
    <BayDrawing now={here.now} />
    <Notice says={JIG.none}>
      {#if !here.path}<button type="button" class="button" data-main onclick={() => here.ask(BAY)}>{JIG.corners}</button
        >{/if}
      <a class="button" href="/cars/{car.slug}/plan/figures" use:link>{JIG.toPlan}</a>
    </Notice>
  {:else}
    <JigDrawing {survey} {view} />
    <Panel {survey} {view} />
  {/if}
</Stage>
