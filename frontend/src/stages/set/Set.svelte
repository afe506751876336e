<script lang="ts">
  // Stage Set: the drawing of what is read now, the corner in hand, and the tape.
  import { untrack } from 'svelte';
  import type { Car } from '$lib/car.svelte';
  import { CORNER_WORDS } from '$lib/marks';
  import { router } from '$lib/router.svelte';
  import Panel from '$parts/frame/Panel.svelte';
  import Stage from '$parts/frame/Stage.svelte';
  import { RoundDesk, type Work } from '$parts/tape/round.svelte';
  import CornerFigures from './CornerFigures.svelte';
  import { linesOf, toldOf } from './lift';
  import LiftList from './LiftList.svelte';
  import Scope from './Scope.svelte';
  import ReadBy from './ReadBy.svelte';
  import ReadTape from './ReadTape.svelte';
  import Round from './Round.svelte';
  import SetDrawing from './SetDrawing.svelte';
  import Turns from './Turns.svelte';
  import TurnTape from './TurnTape.svelte';

  type Props = { car: Car };
  let { car }: Props = $props();

  let whole = $state(true); // the lift for the whole car, or the turns of the corner in hand alone
  const work: Work = {
    base: 'set',
    asks: (v, place) =>
      place[1] === 'pad' && !v.round.some((a) => a.quantity === 'pad') ? [...v.pads, ...v.round] : v.round,
    adjusters: (v, corner) => v.corners[corner].adjusters,
    told: (v, corner) => (whole && v.lift ? toldOf(v.lift) : v.corners[corner].turns),
    lifted: (v) => whole && v.lift !== null,
  };
  const desk = new RoundDesk(
    untrack(() => car),
    () => router.parts.slice(3),
    () => work,
  );
  const lift = $derived(desk.view.lift);
  const stops = $derived(whole && lift ? linesOf(lift, car.pending) : []);
</script>

{#snippet foot()}{#if desk.turning}<TurnTape {desk} />{:else}<ReadTape {desk} />{/if}{/snippet}

<Stage {foot}>
  <SetDrawing {desk} {stops} />
  <Panel>
    <div class="card side">
      {#if lift}<Scope {whole} set={(to) => ((whole = to), desk.startTurning())} />{/if}
      {#if lift && whole && desk.turning}
        <LiftList {lift} {stops} now={desk.adjuster?.id} onpick={(corner, id) => desk.openTurn(corner, id)} />
      {:else}
        <Round {desk} />
        {#if !desk.turning}<ReadBy {desk} />{/if}
        <CornerFigures view={desk.view} corner={desk.corner} brief={desk.turning} />
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
