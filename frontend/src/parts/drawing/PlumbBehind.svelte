<script lang="ts">
  // One wheel from behind, its lean drawn larger, and a plumb line beside it: which gap is read now, at the rim's top or at its bottom.
  import type { AskView, CarView, Corner, Quantity } from '$lib/api/client';
  import { axle, CORNER_WORDS, isLeft, markOf } from '$lib/marks';
  import Dimension from './Dimension.svelte';
  import Plate from './Plate.svelte';
  import { DRAWING } from './texts';

  type Props = { view: CarView; corner: Corner; quantity: Quantity; typed?: string };
  let { view, corner, quantity, typed = '' }: Props = $props();

  const TIMES = 5;
  const side = $derived(isLeft(corner) ? -1 : 1);
  const wheel = $derived(axle(view, corner));
  const [r, rim, fat] = $derived([
    wheel.tyre_diameter / 2,
    wheel.rim_flange_diameter / 2,
    wheel.rim_flange_diameter * 0.42,
  ]);
  const lean = $derived((side * (markOf(view, `${corner}.camber`).value ?? 0) * TIMES * Math.PI) / 180);
  const line = $derived(side * (fat / 2 + r * 0.8));
  const box = $derived({ x: -r * 2.1, y: -2.5 * r, w: 4.2 * r, h: 2.9 * r });
  const gaps = $derived(
    (['lean_top', 'lean_bottom'] as const).map((q) => {
      const [x, y] = [(side * fat) / 2, q === 'lean_top' ? -rim : rim];
      const ask = view.round.find((a: AskView) => a.corner === corner && a.quantity === q);
      return {
        q,
        x: x * Math.cos(lean) - y * Math.sin(lean),
        y: -r + x * Math.sin(lean) + y * Math.cos(lean),
        text: q === quantity && typed ? typed : (ask?.latest ?? ''),
      };
    }),
  );
</script>

<Plate label={DRAWING.place(corner, quantity)} {box} note="{DRAWING.fromBehind}, {DRAWING.leaning(TIMES)}">
  {#snippet children(px)}
    <path class="line" d="M{box.x} 0H{box.x + box.w}" />
    <text class="dim-word" font-size={14 * px} x={box.x + 10 * px} y={20 * px}>{DRAWING.floor}</text>
    <text font-size={17 * px} text-anchor="middle" x="0" y={-2 * r - 34 * px}>{CORNER_WORDS[corner]}</text>
    <g transform="translate(0 {-r}) rotate({(lean * 180) / Math.PI})">
      <rect class="line" x={-fat / 2} y={-r} width={fat} height={2 * r} rx={fat * 0.24} />
      <rect class="thin" x={-fat / 2} y={-rim} width={fat} height={2 * rim} />
      <path class="axis" d="M0 {-r * 1.15}V{r * 1.05}" />
    </g>
    <path class="string" d="M{line} {-2.25 * r}V{-0.12 * r}" />
    <path class="now" d="M{line - 7 * px} {-0.12 * r}L{line} {-0.02 * r}L{line + 7 * px} {-0.12 * r}Z" />
    <text
      class="now-word"
      font-size={15 * px}
      x={line + side * 12 * px}
      y={-2.2 * r}
      text-anchor={side < 0 ? 'end' : 'start'}>{DRAWING.plumb}</text
    >
    {#each gaps as g (g.q)}
      <Dimension x1={line} y1={g.y} x2={g.x} y2={g.y} {px} text={g.text} now={g.q === quantity} />
    {/each}
  {/snippet}
</Plate>
