<script lang="ts">
  // Stage Set: the drawing of what is read now, the corner in hand, and the tape.
  import { untrack } from 'svelte';
  import { api, type CarView, type Corner } from '$lib/api/client';
  import { until } from '$lib/api/until';
  import { QUANTITIES } from '$lib/kinds';
  import type { Car } from '$lib/car.svelte';
  import { CORNER_WORDS, isFront } from '$lib/marks';
  import { router } from '$lib/router.svelte';
  import Pressed from '$parts/form/Pressed.svelte';
  import Panel from '$parts/frame/Panel.svelte';
  import Stage from '$parts/frame/Stage.svelte';
  import { RoundDesk, type Work, withPads } from '$parts/tape/round.svelte';
  import { Here } from '../plan/here/here.svelte';
  import PlanTape from '../plan/here/Tape.svelte';
  import Wanted from '../plan/here/Wanted.svelte';
  import CornerFigures from './CornerFigures.svelte';
  import { linesOf, toldOf } from './lift';
  import LiftList from './LiftList.svelte';
  import ReadBy from './ReadBy.svelte';
  import ReadTape from './ReadTape.svelte';
  import Round from './Round.svelte';
  import SetDrawing from './SetDrawing.svelte';
  import Turns from './Turns.svelte';
  import { SET } from './texts';
  import TurnTape from './TurnTape.svelte';

  type Props = { car: Car };
  type End = 'front' | 'rear';
  let { car }: Props = $props();

  let scope = $state<'car' | 'axle' | 'corner'>('car'); // what is turned together
  let ofAxle = $state.raw<{ end: End; lift: CarView['lift'] }>({ end: 'front', lift: null });
  const endOf = (corner: Corner): End => (isFront(corner) ? 'front' : 'rear');
  const together = (v: CarView) =>
    scope === 'car' ? v.lift : scope === 'axle' && ofAxle.end === endOf(desk.corner) ? ofAxle.lift : null;
  const work: Work = {
    base: 'set',
    asks: (v, place) => withPads(v, v.round, place),
    adjusters: (v, corner) => v.corners[corner].adjusters,
    told: (v, corner) => (together(v) ? toldOf(together(v)!) : v.corners[corner].turns),
    lifted: (v) => together(v) !== null,
  };
  const desk = new RoundDesk(
    untrack(() => car),
    () => router.parts.slice(3),
    () => work,
  );
  const here = new Here(untrack(() => car));
  const end = $derived<End>(endOf(desk.corner));
  const lift = $derived(together(desk.view));
  const stops = $derived(lift ? linesOf(lift, car.pending) : []);
  $effect(() => {
    if (scope !== 'axle' || !desk.view.number) return;
    const [slug, which] = [car.slug, end];
    return until(
      () => api.liftOf(slug, which),
      (found) => {
        ofAxle = { end: which, lift: found };
        if (desk.turning) desk.toldAnew();
      },
    );
  });
</script>

{#snippet foot()}{#if here.path}<PlanTape {here} />{:else if desk.turning}<TurnTape {desk} />{:else}<ReadTape
      {desk}
    />{/if}{/snippet}

<Stage {foot}>
  <SetDrawing {desk} {stops} />
  <Panel>
    <div class="card side">
      <Wanted {here} stage="Set" />
      {#if desk.view.lift}<Pressed
          label={SET.scope}
          options={SET.scopes}
          value={scope}
          onpick={(to) => ((scope = to), desk.startTurning())}
        />{/if}
      {#if lift && desk.turning}
        <LiftList {lift} {stops} now={desk.adjuster?.id} onpick={(corner, id) => desk.openTurn(corner, id)} />
      {:else}
        <Round {desk} />
        {#if !desk.turning}<ReadBy {desk} />{/if}
        <CornerFigures
          view={desk.view}
          corner={desk.corner}
          kinds={QUANTITIES[desk.ask.quantity].marks}
          brief={desk.turning}
        />
        <Turns
          answer={desk.view.corners[desk.corner]}
          slug={car.slug}
          title="{CORNER_WORDS[desk.corner]}: adjusters"
          now={desk.turning ? desk.adjuster?.id : undefined}
          onpick={(id) => desk.openTurn(desk.corner, id)}
        />
      {/if}
    </div>
  </Panel>
</Stage>

<style>
  .card {
    display: grid;
    gap: 7px;
    align-content: start;
    padding-top: 10px;
    min-height: 100%;
  }
</style>
