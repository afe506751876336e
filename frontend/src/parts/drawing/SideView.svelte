<script lang="ts">
  // One side of the car, to scale: the two places its ride heights are read at.
  import type { AskView, CarView, Corner } from '$lib/api/client';
  import { CORNER_WORDS, CORNERS, isFront, isLeft } from '$lib/marks';
  import Dimension from './Dimension.svelte';
  import Plate from './Plate.svelte';
  import { DRAWING } from './texts';

  type Props = { view: CarView; corner: Corner; typed?: string };
  let { view, corner, typed = '' }: Props = $props();

  const left = $derived(isLeft(corner));
  const way = $derived(left ? -1 : 1); // the nose of the left side points left on the plate
  const plan = $derived(view.plan);
  const wheels = $derived([
    { x: 0, d: plan.front.tyre_diameter, rim: plan.front.rim_flange_diameter },
    { x: -way * plan.wheelbase, d: plan.rear.tyre_diameter, rim: plan.rear.rim_flange_diameter },
  ]);
  const high = $derived(Math.max(plan.front.tyre_diameter, plan.rear.tyre_diameter));
  const box = $derived({
    x: left ? -430 : -plan.wheelbase - 430,
    y: -high - 200,
    w: plan.wheelbase + 860,
    h: high + 600,
  });
  const places = $derived(
    CORNERS.filter((c) => isLeft(c) === left).map((c) => {
      const place = plan.heights.find((h) => h.corner === c);
      const mark = view.marks.find((m) => m.mark === `${c}.height`);
      const ask = view.round.find((a: AskView) => a.corner === c && a.quantity === 'height');
      const station = place?.station ?? (isFront(c) ? 0 : -plan.wheelbase);
      return {
        c,
        x: way * station,
        h: mark?.value ?? mark?.aim?.aim ?? 120,
        name: place?.name ?? '',
        text: c === corner && typed ? typed : (ask?.latest ?? ''),
        now: c === corner,
      };
    }),
  );
  const ends = $derived(places.map((p) => [p.x, -p.h] as const));
  const over = $derived(way * 260);
</script>

<Plate label={DRAWING.place(corner, 'height')} {box} note={DRAWING.side(left)}>
  {#snippet children(px)}
    <path class="line" d="M{box.x} 0H{box.x + box.w}" />
    <text class="dim-word" font-size={14 * px} x={box.x + box.w / 2} y={20 * px} text-anchor="middle"
      >{DRAWING.floor}</text
    >
    {#each wheels as w, i (i)}
      <circle class="line" cx={w.x} cy={-w.d / 2} r={w.d / 2} /><circle
        class="thin"
        cx={w.x}
        cy={-w.d / 2}
        r={w.rim / 2}
      />
      <path class="dim" d="M{w.x} {-w.d / 2 - 12 * px}v{24 * px}M{w.x - 12 * px} {-w.d / 2}h{24 * px}" />
    {/each}
    {#if ends.length === 2 && ends[0] && ends[1]}
      <path
        class="thin"
        d="M{ends[0][0] + over} {ends[0][1] - 20}L{ends[0][0]} {ends[0][1]}L{ends[1][0]} {ends[1][1]}L{ends[1][0] -
          over} {ends[1][1] - 20}"
      />
    {/if}
    {#each places as p, i (i)}
      <Dimension x1={p.x} y1={0} x2={p.x} y2={-p.h} {px} now={p.now} />
      <path class="dim" d="M{p.x} 4V{18 * px}" />
      <text
        class="fig"
        class:now-word={p.now}
        style:font-family="Figure"
        font-size={(p.now ? 32 : 22) * px}
        text-anchor="middle"
        x={p.x}
        y={48 * px}>{p.text || '…'}</text
      >
      <text class:now-word={p.now} class:dim-word={!p.now} font-size={15 * px} text-anchor="middle" x={p.x} y={72 * px}
        >{p.name}</text
      >
      <text font-size={17 * px} text-anchor="middle" x={isFront(p.c) ? wheels[0]?.x : wheels[1]?.x} y={-high - 18 * px}
        >{CORNER_WORDS[p.c]}</text
      >
    {/each}
  {/snippet}
</Plate>
