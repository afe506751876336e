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
  import ReadTape from './ReadTape.svelte';
  import Round from './Round.svelte';
  import SetDrawing from './SetDrawing.svelte';
  import Turns from './Turns.svelte';
  import TurnTape from './TurnTape.svelte';

  type Props = { car: Car };
  let { car }: Props = $props();

  const work: Work = {
    base: 'set',
    asks: (v, place) =>
      place[1] === 'pad' && !v.round.some((a) => a.quantity === 'pad') ? [...v.pads, ...v.round] : v.round,
    adjusters: (v, corner) => v.corners[corner].adjusters,
    told: (v, corner) => v.corners[corner].turns,
  };
  const desk = new RoundDesk(
    untrack(() => car),
    () => router.parts.slice(3),
    () => work,
  );
</script>

{#snippet foot()}{#if desk.turning}<TurnTape {desk} />{:else}<ReadTape {desk} />{/if}{/snippet}

<Stage {foot}>
  <SetDrawing {desk} />
  <Panel>
    <div class="card side">
      <Round {desk} />
      <CornerFigures view={desk.view} corner={desk.corner} brief={desk.turning} />
      <Turns
        answer={desk.view.corners[desk.corner]}
        slug={car.slug}
        title="{CORNER_WORDS[desk.corner]}: adjusters"
        now={desk.turning ? desk.adjuster?.id : undefined}
        onpick={(id) => desk.openTurn(desk.corner, id)}
      />
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
