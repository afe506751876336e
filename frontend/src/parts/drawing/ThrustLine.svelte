<script lang="ts">
  // Where the rear wheels push the car, and where the front ones point, from the middle of their axles; and both wheelbases where they are read.
  import type { CarView } from '$lib/api/client';
  import { isLeft, markOf } from '$lib/marks';
  import Dimension from './Dimension.svelte';
  import { DRAWING } from './texts';

  type Props = { view: CarView; times: number; px: number };
  let { view, times, px }: Props = $props();

  const thrust = $derived(markOf(view, 'car.thrust'));
  const setback = $derived(markOf(view, 'car.setback'));
  const base = $derived(view.plan.wheelbase);
  const sides = $derived(
    view.round
      .filter((a) => a.quantity === 'wheelbase' && a.latest)
      .map((a) => ({ corner: a.corner, said: a.latest, x: (isLeft(a.corner) ? -1 : 1) * view.plan.rear.track * 0.29 })),
  );
  const turn = $derived(-(thrust.value ?? 0) * times);
</script>

{#if thrust.value !== null}
  <g transform="translate(0 {base}) rotate({turn})">
    <path class="string" d="M0 0V{-base * 0.82}" />
    <path class="string" d="M{-7 * px} {-base * 0.82 + 14 * px}L0 {-base * 0.82}L{7 * px} {-base * 0.82 + 14 * px}" />
  </g>
  <text class="now-word" font-size={15 * px} x={10 * px} y={base + 24 * px}>{DRAWING.thrust} {thrust.say}</text>
{/if}
{#each sides as { corner, said, x } (corner)}
  <Dimension x1={x} y1={base} x2={x} y2={0} {px} text={said ?? ''} />
{/each}
{#if setback.value !== null}
  <text class="dim-word" font-size={14 * px} text-anchor="middle" x="0" y={-18 * px}
    >{DRAWING.setback} {setback.say}</text
  >
{/if}
