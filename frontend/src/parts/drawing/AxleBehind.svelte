<script lang="ts">
  // One axle from behind: the wheels at their camber, drawn larger, and the gauge on the one to read.
  import type { CarView, Corner } from '$lib/api/client';
  import { axle, CORNER_WORDS, isFront, isLeft, markOf } from '$lib/marks';
  import Plate from './Plate.svelte';
  import { DRAWING } from './texts';

  type Props = { view: CarView; corner: Corner; typed?: string };
  let { view, corner, typed = '' }: Props = $props();

  const TIMES = 5;
  const wheel = $derived(axle(view, corner));
  const pair = $derived<Corner[]>(isFront(corner) ? ['LF', 'RF'] : ['LR', 'RR']);
  const fat = $derived(wheel.rim_flange_diameter * 0.42);
  const r = $derived(wheel.tyre_diameter / 2);
  const box = $derived({
    x: -wheel.track / 2 - fat - 60,
    y: -wheel.tyre_diameter - 380,
    w: wheel.track + 2 * fat + 120,
    h: wheel.tyre_diameter + 520,
  });
  const wheels = $derived(
    pair.map((c) => {
      const mark = markOf(view, `${c}.camber`);
      const side = isLeft(c) ? -1 : 1;
      return {
        c,
        side,
        x: (side * wheel.track) / 2,
        lean: side * (mark.value ?? 0) * TIMES,
        text: c === corner && typed ? typed : mark.say,
        now: c === corner,
      };
    }),
  );
</script>

<Plate label={DRAWING.place(corner, 'camber')} {box} note="{DRAWING.fromBehind}, {DRAWING.enlarged(TIMES)}">
  {#snippet children(px)}
    <path class="line" d="M{box.x} 0H{box.x + box.w}" />
    <text class="dim-word" font-size={14 * px} x={box.x + 10 * px} y={20 * px}>{DRAWING.floor}</text>
    <path class="axis" d="M0 {box.y + 30}V{40}" />
    <path class="dim" d="M{-wheel.track / 2} {-r}H{wheel.track / 2}" />
    {#each wheels as w (w.c)}
      <g transform="translate({w.x} {-r}) rotate({w.lean})">
        <rect class={w.now ? 'line' : 'thin'} x={-fat / 2} y={-r} width={fat} height={2 * r} rx={fat * 0.24} />
        <path class="axis" d="M0 {-r * 1.35}V{r * 1.1}" />
        {#if w.now}
          <rect
            class="now"
            x={w.side > 0 ? fat / 2 + 3 * px : -fat / 2 - 17 * px}
            y={-wheel.rim_flange_diameter / 2}
            width={14 * px}
            height={wheel.rim_flange_diameter}
            rx={3 * px}
          />
        {/if}
      </g>
      <path class="dim" d="M{w.x} {-r * 2 - 20 * px}V-6" stroke-dasharray="3 5" />
      <text font-size={17 * px} text-anchor="middle" x={w.x} y={-2 * r - 78 * px}>{CORNER_WORDS[w.c]}</text>
      <text
        class="fig"
        class:now-word={w.now}
        style:font-family="Figure"
        font-size={(w.now ? 30 : 21) * px}
        text-anchor="middle"
        x={w.x}
        y={-2 * r - 42 * px}>{w.text}</text
      >
    {/each}
  {/snippet}
</Plate>
