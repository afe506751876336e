<script lang="ts">
  // The car as it stands, from one side and from one end, to scale: chassis, wheels, floor, stands; the wanted stance thin behind.
  import { isFront, isLeft } from '$lib/marks';
  import Plate from '$parts/drawing/Plate.svelte';
  import { type Shown, StanceViews } from './stance-views';
  import StanceEnd from './StanceEnd.svelte';
  import StanceSide from './StanceSide.svelte';
  import { DRAWN } from './texts';

  type Props = Omit<Shown, 'typed'> & { typed?: string };
  let { view, stance, corner, onStands, quantity, typed = '' }: Props = $props();
  const views = $derived(new StanceViews({ view, stance, corner, onStands, quantity, typed }));
  const side = $derived(DRAWN.side(isLeft(corner)));
  const end = $derived(DRAWN.end(isFront(corner)));
</script>

<div class="pair" data-drawing>
  <Plate label={side} box={views.sideBox} note={side} noteOnTop>
    {#snippet children(px)}<StanceSide {views} {px} />{/snippet}
  </Plate>
  <Plate label={end} box={views.endBox} note={end} noteOnTop>
    {#snippet children(px)}<StanceEnd {views} {px} />{/snippet}
  </Plate>
</div>

<style>
  .pair {
    display: grid;
    grid-template-rows: minmax(0, 1fr) minmax(0, 1fr);
    gap: var(--gap-3);
    min-height: 0;
    min-width: 0;
  }
  .pair :global(figure) {
    min-height: 190px;
  }
  @media (max-width: 1000px) {
    .pair {
      grid-template-rows: 260px 260px;
    }
  }
  @media (max-width: 700px) {
    .pair {
      grid-template-rows: 200px;
    }
    .pair > :global(figure + figure) {
      display: none;
    }
  }
</style>
