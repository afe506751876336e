<script lang="ts">
  // One wheel from above, nose up, with the line inside it: a straight edge along the rail, or the line down the middle and a bar on the hub.
  import type { AskView, CarView, Corner, Quantity } from '$lib/api/client';
  import { axle, CORNER_WORDS, isLeft, markOf } from '$lib/marks';
  import Dimension from './Dimension.svelte';
  import Plate from './Plate.svelte';
  import { DRAWING } from './texts';

  type Props = { view: CarView; corner: Corner; quantity: Quantity; typed?: string };
  let { view, corner, quantity, typed = '' }: Props = $props();

  const TIMES = 10;
  const side = $derived(isLeft(corner) ? -1 : 1);
  const wheel = $derived(axle(view, corner));
  const bars = $derived(quantity.startsWith('bar_'));
  const fat = $derived(wheel.rim_flange_diameter * 0.42);
  const turn = $derived((-side * (markOf(view, `${corner}.toe`).value ?? 0) * TIMES * Math.PI) / 180);
  const line = $derived(-side * wheel.tyre_diameter * (bars ? 1.05 : 0.72));
  const middle = $derived(-side * wheel.tyre_diameter * 1.05);
  const reach = $derived(bars ? (view.plan.ways.bar ?? wheel.tyre_diameter) / 2 : wheel.rim_flange_diameter / 2);
  const box = $derived({
    x: -wheel.tyre_diameter * (side < 0 ? 0.55 : 1.2),
    y: -wheel.tyre_diameter * 0.66,
    w: wheel.tyre_diameter * 1.75,
    h: wheel.tyre_diameter * 1.32,
  });
  const at = (along: number) => {
    const [x, y] = [(-side * fat) / 2, -along];
    return { x: x * Math.cos(turn) - y * Math.sin(turn), y: x * Math.sin(turn) + y * Math.cos(turn) };
  };
  const own = $derived(bars ? (['bar_front', 'bar_back'] as const) : (['edge_front', 'edge_back'] as const));
  const said = (q: Quantity) =>
    q === quantity && typed
      ? typed
      : (view.round.find((a: AskView) => a.corner === corner && a.quantity === q)?.latest ?? '');
</script>

<Plate label={DRAWING.place(corner, quantity)} {box} note={DRAWING.turned(TIMES)}>
  {#snippet children(px)}
    <path class="axis" d="M{middle} {box.y}V{box.y + box.h}" />
    {#if bars}
      <path class="string" d="M{line} {box.y - 40}V{box.y + box.h + 40}" />
      <g transform="rotate({(turn * 180) / Math.PI})">
        <rect class="line" x={(-side * fat) / 2 - 5 * px} y={-reach} width={10 * px} height={2 * reach} />
      </g>
    {:else}
      <rect class="thin" x={line + (side < 0 ? 0 : -34) * px} y={box.y} width={34 * px} height={box.h} />
      <path class="string" d="M{line} {box.y + 30 * px}V{box.y + box.h - 30 * px}" />
      {#if quantity === 'rail'}
        <Dimension x1={middle} y1={0} x2={line} y2={0} {px} text={said('rail')} now />
      {/if}
    {/if}
    <text
      class="now-word"
      font-size={15 * px}
      x={line + side * 10 * px}
      y={box.y + box.h - 8 * px}
      text-anchor={side < 0 ? 'end' : 'start'}>{bars ? DRAWING.middleLine : DRAWING.straightEdge}</text
    >
    <g transform="rotate({(turn * 180) / Math.PI})">
      <rect
        class="line"
        x={-fat / 2}
        y={-wheel.tyre_diameter / 2}
        width={fat}
        height={wheel.tyre_diameter}
        rx={fat * 0.24}
      />
      <path class="axis" d="M0 {-wheel.tyre_diameter * 0.46}V{wheel.tyre_diameter * 0.46}" />
    </g>
    <text class="at-length" font-size={17 * px} text-anchor="middle" x="0" y={box.y + 12 * px}
      >{CORNER_WORDS[corner]}, {DRAWING.front} ↑</text
    >
    {#each own as q, i (q)}
      {@const place = at(i ? -reach : reach)}
      <Dimension x1={line} y1={place.y} x2={place.x} y2={place.y} {px} text={said(q)} now={q === quantity} />
    {/each}
  {/snippet}
</Plate>
