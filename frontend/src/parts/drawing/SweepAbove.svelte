<script lang="ts">
  // One front wheel on its turn plate from above, nose up, steered in or out: the plate's angle, and the gauge at the rim.
  import type { AskView, CarView, Corner, Quantity } from '$lib/api/client';
  import { axle, CORNER_WORDS, isLeft } from '$lib/marks';
  import Plate from './Plate.svelte';
  import { DRAWING } from './texts';

  type Props = { view: CarView; corner: Corner; quantity: Quantity; typed?: string };
  let { view, corner, quantity, typed = '' }: Props = $props();

  const USUAL = 20;
  const side = $derived(isLeft(corner) ? -1 : 1);
  const inwards = $derived(quantity.endsWith('_in'));
  const plate = $derived<Quantity>(inwards ? 'plate_in' : 'plate_out');
  const gauge = $derived<Quantity>(inwards ? 'sweep_in' : 'sweep_out');
  const wheel = $derived(axle(view, corner));
  const [r, rim, fat] = $derived([
    wheel.tyre_diameter / 2,
    wheel.rim_flange_diameter / 2,
    wheel.rim_flange_diameter * 0.42,
  ]);
  const turn = $derived((inwards ? -side : side) * USUAL); // clockwise on the plate, as SVG turns
  const around = $derived(r * 1.25);
  const box = $derived({ x: -r * 2, y: -r * 1.75, w: 4 * r, h: 3.4 * r });
  const at = (deg: number, far: number) => {
    const a = (deg * Math.PI) / 180;
    return `${far * Math.sin(a)} ${-far * Math.cos(a)}`;
  };
  const ticks = Array.from({ length: 13 }, (_, i) => (i - 6) * 5);
  const read = (q: Quantity) =>
    q === quantity && typed
      ? typed
      : (view.round.find((a: AskView) => a.corner === corner && a.quantity === q)?.latest ?? '');
</script>

<Plate label={DRAWING.place(corner, quantity)} {box} note={DRAWING.onPlate(inwards)}>
  {#snippet children(px)}
    <circle class="thin" cx="0" cy="0" r={around} />
    {#each ticks as deg (deg)}
      <path class="dim" d="M{at(deg, around)}L{at(deg, around * (deg % 10 ? 1.03 : 1.06))}" />
    {/each}
    <path class="axis" d="M0 {r * 1.4}V{-r * 1.45}" />
    <text font-size={17 * px} text-anchor="middle" x="0" y={r * 1.58}>{CORNER_WORDS[corner]}, {DRAWING.front} ↑</text>
    <g transform="rotate({turn})">
      <rect class="line" x={-fat / 2} y={-r} width={fat} height={2 * r} rx={fat * 0.24} />
      <path class="axis" d="M0 {r}V{-r * 1.3}" />
      <rect
        class={quantity === gauge ? 'now' : 'thin'}
        x={side > 0 ? fat / 2 + 3 * px : -fat / 2 - 17 * px}
        y={-rim}
        width={14 * px}
        height={2 * rim}
        rx={3 * px}
      />
    </g>
    <path
      class={quantity === plate ? 'now' : 'thin'}
      d="M{at(0, r * 1.12)}A{r * 1.12} {r * 1.12} 0 0 {turn > 0 ? 1 : 0} {at(turn, r * 1.12)}"
    />
    <text
      class="fig"
      class:now-word={quantity === plate}
      style:font-family="Figure"
      font-size={(quantity === plate ? 30 : 21) * px}
      text-anchor="middle"
      x={Math.sin((turn * Math.PI) / 180) * r * 1.5}
      y={-r * 1.38}>{read(plate) || (quantity === plate ? '…' : '')}</text
    >
    <text
      class="fig"
      class:now-word={quantity === gauge}
      style:font-family="Figure"
      font-size={(quantity === gauge ? 30 : 21) * px}
      text-anchor={side > 0 ? 'start' : 'end'}
      x={side * (fat / 2 + 40 * px) + side * r * 0.2}
      y={r * 0.2}>{read(gauge) || (quantity === gauge ? '…' : '')}</text
    >
  {/snippet}
</Plate>
