<script lang="ts">
  // One wheel and its string from above, nose up: which gap is read now, and what the others read.
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
  const fat = $derived(wheel.rim_flange_diameter * 0.42);
  const turn = $derived((-side * (markOf(view, `${corner}.toe`).value ?? 0) * TIMES * Math.PI) / 180);
  // The string is drawn well clear of the tyre, so that the gaps can be read off; its figures are the true ones.
  const string = $derived(side * (fat / 2 + wheel.tyre_diameter * 0.34));
  const inner = $derived(-side * wheel.tyre_diameter * 0.62);
  const box = $derived({
    x: -wheel.tyre_diameter * 0.8,
    y: -wheel.tyre_diameter * 0.66,
    w: wheel.tyre_diameter * 1.6,
    h: wheel.tyre_diameter * 1.32,
  });
  const rim = $derived(wheel.rim_flange_diameter / 2);
  const at = (along: number) => {
    const [x, y] = [(side * fat) / 2, -along];
    return { x: x * Math.cos(turn) - y * Math.sin(turn), y: x * Math.sin(turn) + y * Math.cos(turn) };
  };
  const gaps = $derived(
    (
      [
        ['gap_front', rim],
        [view.plan.ways.strings === 'marks' ? 'gap_mark' : 'gap_hub', 0],
        ['gap_back', -rim],
      ] as const
    ).map(([q, along]) => {
      const ask = view.round.find((a: AskView) => a.corner === corner && a.quantity === q);
      return { q, ...at(along), text: q === quantity && typed ? typed : (ask?.latest ?? ''), old: ask?.wanted ?? true };
    }),
  );
</script>

<Plate label={DRAWING.place(corner, quantity)} {box} note={DRAWING.turned(TIMES)}>
  {#snippet children(px)}
    <path class="string" d="M{string} {box.y - 40}V{box.y + box.h + 40}" />
    <text
      class="now-word"
      font-size={15 * px}
      x={string + side * 10 * px}
      y={box.y + 12 * px}
      text-anchor={side < 0 ? 'end' : 'start'}>{DRAWING.string}</text
    >
    <path class="axis" d="M{inner} {box.y}V{box.y + box.h}" />
    <text
      class="dim-word"
      font-size={14 * px}
      x={inner + side * 8 * px}
      y={box.y + box.h - 4 * px}
      text-anchor={side < 0 ? 'end' : 'start'}>{DRAWING.centreline}</text
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
      <rect
        class="thin"
        x={-fat * 0.42}
        y={-rim}
        width={fat * 0.92 - fat * 0.0}
        height={2 * rim}
        rx={5 * px}
        transform={side < 0 ? `translate(${-fat * 0.08} 0)` : ''}
      />
      <path class="axis" d="M0 {-wheel.tyre_diameter * 0.46}V{wheel.tyre_diameter * 0.46}" />
      <path class="thin" d="M0 0H{(side * fat) / 2}" />
    </g>
    <text class="at-length" font-size={17 * px} text-anchor="middle" x="0" y={box.y + 10 * px}
      >{CORNER_WORDS[corner]}, {DRAWING.front} ↑</text
    >
    {#each gaps as g (g.q)}
      <Dimension x1={string} y1={g.y} x2={g.x} y2={g.y} {px} text={g.text} now={g.q === quantity} />
    {/each}
  {/snippet}
</Plate>
