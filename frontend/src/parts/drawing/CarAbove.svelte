<script lang="ts">
  // The car from above, to scale from its own figures, nose up; wheels stand at their toe, drawn larger. Marks out of place say so.
  import type { CarView, Corner } from '$lib/api/client';
  import { kindsAt } from '$lib/kinds';
  import LiftWalk from './LiftWalk.svelte';
  import { axle, CORNER_WORDS, CORNERS, isFront, isLeft, markOf } from '$lib/marks';
  import { DRAWING } from './texts';
  import Plate from './Plate.svelte';
  import ThrustLine from './ThrustLine.svelte';

  type Props = {
    view: CarView;
    lit?: Corner | null;
    pads?: boolean;
    /** The level lies from the pad before, round the car, to the one that is lit. */
    stepped?: boolean;
    stops?: { corner: Corner; done: boolean; say: string }[];
    onpick?: (corner: Corner) => void;
  };
  let { view, lit = null, pads = false, stepped = false, stops = [], onpick }: Props = $props();

  const TIMES = 10;
  const plan = $derived(view.plan);
  const wide = $derived(Math.max(plan.front.track, plan.rear.track));
  const box = $derived({
    x: -wide / 2 - 330,
    y: -plan.front.tyre_diameter / 2 - 260,
    w: wide + 660,
    h: plan.wheelbase + (plan.front.tyre_diameter + plan.rear.tyre_diameter) / 2 + 520,
  });
  const wheels = $derived(
    CORNERS.map((corner) => {
      const { track, tyre_diameter: tall, rim_flange_diameter: rim } = axle(view, corner);
      const side = isLeft(corner) ? -1 : 1; // left of the car is left on the plate
      const toe = markOf(view, `${corner}.toe`);
      const out = kindsAt(corner)
        .map((kind) => markOf(view, `${corner}.${kind}`))
        .filter((m) => m.state === 'out');
      return {
        corner,
        side,
        x: (side * track) / 2,
        y: isFront(corner) ? 0 : plan.wheelbase,
        tall,
        rim,
        fat: rim * 0.45,
        turn: -side * (toe.value ?? 0) * TIMES,
        out,
      };
    }),
  );
  const AROUND: Corner[] = ['LF', 'RF', 'RR', 'LR'];
  const frame = $derived(
    AROUND.map((c) => plan.heights.find((h) => h.corner === c))
      .filter((h) => h !== undefined)
      .map((h) => [-h.offset, -h.station] as const),
  );
  const laid = $derived.by(() => {
    if (!stepped || !lit) return null;
    const before = AROUND[(AROUND.indexOf(lit) + 3) % 4]!;
    const [from, to] = [before, lit].map((c) => wheels.find((w) => w.corner === c)!);
    return { from: from!, to: to! };
  });
  /** Whether the words of left and right would run into each other over their wheels. */
  const tight = (x: number, px: number) => Math.abs(x) < 50 * px;
</script>

<Plate label="{plan.name}, seen from above" {box} note={DRAWING.turned(TIMES)}>
  {#snippet children(px)}
    <path class="axis" d="M0 {box.y + 20}V{box.y + box.h - 20}" />
    {#each [0, plan.wheelbase] as y, i (i)}
      {@const half = (i ? plan.rear.track : plan.front.track) / 2}
      <path class="dim" d="M{-half} {y}H{half}" />
    {/each}
    {#if frame.length > 2}<path class="thin" d="M{frame.map((p) => p.join(' ')).join('L')}Z" />{/if}
    {#each frame as [x, y], i (i)}<circle class="thin" cx={x} cy={y} r={4 * px} />{/each}
    {#each wheels as w (w.corner)}
      <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions (the walk-round's own buttons do the same from the keyboard) -->
      <g onclick={() => onpick?.(w.corner)} class:pick={onpick}>
        <g transform="translate({w.x} {w.y}) rotate({w.turn})">
          <rect
            class={lit === w.corner ? 'now' : 'line'}
            x={-w.fat / 2}
            y={-w.tall / 2}
            width={w.fat}
            height={w.tall}
            rx={w.fat * 0.25}
          />
          <path class="dim" d="M0 {-w.rim / 2}V{w.rim / 2}" />
        </g>
        {#if pads}<circle class={lit === w.corner ? 'now' : 'thin'} cx={w.x} cy={w.y} r={14 * px} />{/if}
        <text
          font-size={16 * px}
          text-anchor={tight(w.x, px) ? (w.side < 0 ? 'end' : 'start') : 'middle'}
          x={tight(w.x, px) ? w.side * 6 * px : w.x}
          y={w.y + (isFront(w.corner) ? -w.tall / 2 - 14 * px : w.tall / 2 + 26 * px)}>{CORNER_WORDS[w.corner]}</text
        >
        {#each stops.length ? [] : w.out as mark, i (mark.mark)}
          <text
            class="now-word"
            font-size={15 * px}
            text-anchor={w.side < 0 ? 'end' : 'start'}
            x={w.x + w.side * (w.fat / 2 + 16 * px)}
            y={w.y + (5 + (i - (w.out.length - 1) / 2) * 22) * px}>{mark.do}</text
          >
        {/each}
      </g>
    {/each}
    {#if laid}
      {@const { from, to } = laid}
      <path class="now" d="M{from.x} {from.y}L{to.x} {to.y}" />
      <circle class="now" cx={from.x} cy={from.y} r={5 * px} />
    {/if}
    {#if !pads && !stops.length}<ThrustLine {view} times={TIMES} {px} />{/if}
    {#if stops.length && lit}<LiftWalk {px} places={wheels} {stops} now={lit} />{/if}
  {/snippet}
</Plate>

<style>
  .pick {
    cursor: pointer;
  }
</style>
