<script lang="ts">
  // One wheel and its two ball joints, from the side or from ahead: a gauge on a bar across them, or plumb lines from both.
  import type { AskView, CarView, Corner, Quantity } from '$lib/api/client';
  import { axle, CORNER_WORDS, isLeft, markOf } from '$lib/marks';
  import Dimension from './Dimension.svelte';
  import Plate from './Plate.svelte';
  import { DRAWING } from './texts';

  type Props = { view: CarView; corner: Corner; quantity: Quantity; ahead: boolean; typed?: string };
  let { view, corner, quantity, ahead, typed = '' }: Props = $props();

  const TIMES = $derived(ahead ? 2 : 5);
  const wheel = $derived(axle(view, corner));
  const [r, rim, fat] = $derived([
    wheel.tyre_diameter / 2,
    wheel.rim_flange_diameter / 2,
    wheel.rim_flange_diameter * 0.42,
  ]);
  const mark = $derived(`${corner}.${ahead ? 'inclination' : 'caster'}`);
  const value = $derived(markOf(view, mark).value ?? (ahead ? 10 : 5));
  // From the side the nose of a left wheel points left; from ahead a left wheel stands on the right of the plate.
  const way = $derived(ahead ? (isLeft(corner) ? -1 : 1) : isLeft(corner) ? 1 : -1);
  const high = $derived(rim * 1.3);
  const off = $derived(way * high * Math.tan((value * TIMES * Math.PI) / 180));
  const low = $derived({ x: ahead ? (-way * fat) / 6 : -off / 2, y: -r + high / 2 });
  const top = $derived({ x: low.x + off, y: low.y - high });
  const box = $derived({ x: -r * 2, y: -2.35 * r, w: 4 * r, h: 2.75 * r });
  const bar = $derived(quantity === 'caster' || quantity === 'inclination');
  const read = (q: Quantity) =>
    q === quantity && typed
      ? typed
      : (view.round.find((a: AskView) => a.corner === corner && a.quantity === q)?.latest ?? '');
  const offset = $derived<Quantity>(ahead ? 'inclination_offset' : 'caster_offset');
  const beside = $derived(-way * r * 1.25);
</script>

<Plate
  label={DRAWING.place(corner, quantity)}
  {box}
  note="{ahead ? DRAWING.fromAhead : DRAWING.side(isLeft(corner))}; {DRAWING.axis(TIMES)}"
>
  {#snippet children(px)}
    <path class="line" d="M{box.x} 0H{box.x + box.w}" />
    <text class="dim-word" font-size={14 * px} x={box.x + 10 * px} y={20 * px}>{DRAWING.floor}</text>
    <text font-size={17 * px} text-anchor="middle" x="0" y={-2 * r - 26 * px}>{CORNER_WORDS[corner]}</text>
    {#if ahead}
      <rect class="line" x={-fat / 2 - way * fat * 0.75} y={-2 * r} width={fat} height={2 * r} rx={fat * 0.24} />
    {:else}
      <circle class="line" cx="0" cy={-r} {r} /><circle class="thin" cx="0" cy={-r} r={rim} />
    {/if}
    <path
      class={bar ? 'now' : 'axis'}
      d="M{low.x - off * 0.25} {low.y + high * 0.25}L{top.x + off * 0.25} {top.y - high * 0.25}"
    />
    {#each [low, top] as joint, i (i)}
      <circle class="line" cx={joint.x} cy={joint.y} r={9 * px} />
      <text
        class="dim-word"
        font-size={14 * px}
        x={joint.x + way * 20 * px}
        y={joint.y + (i ? -8 : 18) * px}
        text-anchor={way > 0 ? 'start' : 'end'}>{i ? DRAWING.upper : DRAWING.lower}</text
      >
    {/each}
    {#if bar}
      <text
        class="fig now-word"
        style:font-family="Figure"
        font-size={32 * px}
        x={top.x + off * 0.25 + way * 22 * px}
        y={top.y - high * 0.34}
        text-anchor={way > 0 ? 'start' : 'end'}>{read(quantity)}</text
      >
    {:else}
      <path class="string" d="M{top.x} {top.y}V{low.y + high * 0.64}M{low.x} {low.y}V{low.y + high * 0.64}" />
      <Dimension
        x1={low.x}
        y1={low.y + high * 0.6}
        x2={top.x}
        y2={low.y + high * 0.6}
        {px}
        text={read(offset)}
        now={quantity === offset}
      />
      <path class="dim" d="M{low.x} {low.y}H{beside}M{top.x} {top.y}H{beside}" />
      <Dimension
        x1={beside}
        y1={low.y}
        x2={beside}
        y2={top.y}
        {px}
        text={read('joint_height')}
        now={quantity === 'joint_height'}
        side={way > 0 ? -1 : 1}
      />
    {/if}
  {/snippet}
</Plate>
