<script lang="ts">
  // What is turned, as one stands at the car facing the wheel: the part lit, and which way round it goes.
  import { api, type Layout } from '$lib/api/client';
  import { until } from '$lib/api/until';
  import { isLeft } from '$lib/marks';
  import Plate from '$parts/drawing/Plate.svelte';
  import type { RoundDesk } from '$parts/tape/round.svelte';
  import { standingAt } from './standing';
  import { SET } from './texts';

  type Props = { desk: RoundDesk };
  let { desk }: Props = $props();

  let layouts = $state.raw<Layout[]>([]);
  $effect(() => until(api.layouts, (found) => (layouts = found)));
  const here = $derived(standingAt(desk.view, desk.corner, layouts));
  const plan = $derived(desk.view.plan.adjusters?.find((a) => a.id === desk.adjuster?.id));
  const told = $derived(desk.told.find((t) => t.adjuster === desk.adjuster?.id));
  const moves = $derived(plan?.moves?.name.slice(plan.moves.name.indexOf('.') + 1) ?? '');
  // Where the plan does not say what it moves, a link of the same name is lit.
  const line = $derived(here?.lines.find((l) => l.name === (moves || desk.adjuster?.name)));
  const point = $derived(here && plan?.moves?.direction ? here.at(moves) : null);
  const R = $derived(here?.radius ?? 300);
  const box = $derived({
    x: (here?.wheel.u ?? 0) - R * 1.6,
    y: (here?.wheel.v ?? -R) - R * 1.35,
    w: R * 3.2,
    h: R * 2.5,
  });
  /** Along the part where it is seen from the side; a part that is seen end on is a ring. */
  const long = $derived(line ? Math.hypot(line.to.u - line.from.u, line.to.v - line.from.v) : 0);
  const front = $derived(isLeft(desk.corner) ? -1 : 1);
  const dial = $derived({ u: box.x + R * 0.36, v: box.y + R * 0.36, r: R * 0.24 });
  const arrow = $derived.by(() => {
    const way = told?.clockwise ? 1 : -1;
    const { u, v, r } = dial;
    const at = (deg: number, size = r) => {
      const a = (deg * Math.PI) / 180;
      return `${u + way * size * Math.sin(a)} ${v - size * Math.cos(a)}`;
    };
    return `M${at(-130)}A${r} ${r} 0 1 ${way > 0 ? 1 : 0} ${at(110)}M${at(92, r * 0.78)}L${at(112)}L${at(92, r * 1.24)}`;
  });
  const hex = $derived(
    [30, 90, 150, 210, 270, 330]
      .map((deg) => {
        const a = (deg * Math.PI) / 180;
        return `${dial.u + dial.r * 0.5 * Math.sin(a)},${dial.v - dial.r * 0.5 * Math.cos(a)}`;
      })
      .join(' '),
  );
  const standing = $derived(SET.standing(isLeft(desk.corner)));
  const mid = $derived(line ? { u: (line.from.u + line.to.u) / 2, v: (line.from.v + line.to.v) / 2 } : point);
</script>

<Plate label={standing} {box} note={standing}>
  {#snippet children(px)}
    {#if here}
      <path class="thin" d="M{box.x + R * 0.2} {here.wheel.v + R}H{box.x + box.w - R * 0.2}" />
      <circle class="line" cx={here.wheel.u} cy={here.wheel.v} r={R} />
      <circle class="thin" cx={here.wheel.u} cy={here.wheel.v} r={R * 0.62} />
      {#each here.lines as l, i (i)}<path class="dim" d="M{l.from.u} {l.from.v}L{l.to.u} {l.to.v}" />{/each}
      {#if line && long > R * 0.25}
        <path class="part" d="M{line.from.u} {line.from.v}L{line.to.u} {line.to.v}" />
      {:else if line || point}
        <circle class="part" cx={(line?.to ?? point!).u} cy={(line?.to ?? point!).v} r={14 * px} />
      {/if}
      {#if mid}
        <text class="now-word" font-size={16 * px} x={mid.u} y={mid.v + 34 * px} text-anchor="middle"
          >{desk.adjuster?.name}</text
        >
      {/if}
      <text
        class="dim-word"
        font-size={15 * px}
        x={here.wheel.u + front * R * 1.28}
        y={here.wheel.v + R * 0.85}
        text-anchor="middle">{front < 0 ? `‹ ${SET.front}` : `${SET.front} ›`}</text
      >
      {#if told && typeof told.clockwise === 'boolean'}
        <polygon class="thin" points={hex} />
        <path class="now" d={arrow} />
        <text class="now-word" font-size={15 * px} x={dial.u} y={dial.v + dial.r + 24 * px} text-anchor="middle"
          >{SET.wayRound(told.clockwise)}</text
        >
      {/if}
    {/if}
  {/snippet}
</Plate>

<style>
  .part {
    fill: none;
    stroke: var(--paint-light);
    stroke-width: 9;
    stroke-linecap: round;
    vector-effect: non-scaling-stroke;
  }
  circle.part {
    stroke-width: 4;
  }
</style>
