<script lang="ts">
  // From one end: wheels with what they carry, and the heights over the floor.
  import { CORNER_WORDS, isFront } from '$lib/marks';
  import type { Corner } from '$lib/api/client';
  import Dimension from '$parts/drawing/Dimension.svelte';
  import Chassis from './Chassis.svelte';
  import type { StanceViews } from './stance-views';

  type Props = { views: StanceViews; px: number };
  let { views, px }: Props = $props();
  const { stance, corner, onStands, quantity, typed } = $derived(views.shown);
  const box = $derived(views.endBox);
  const mine = <T extends { c: Corner }>(rows: T[]) => rows.filter((r) => isFront(r.c) === isFront(corner));
  const asked = (c: Corner) => c === corner && quantity === 'load';
  const load = (c: Corner) =>
    asked(c) && typed ? typed : onStands ? '' : (stance?.corners.find((s) => s.corner === c)?.load ?? '');
</script>

<path class="line" d="M{box.x} 0H{box.x + box.w}" />
<Chassis {views} flat={views.across} foot={50} />
{#each mine(views.wheels) as w (w.c)}
  {@const [x, y] = views.across(w.at)}
  <rect
    class={onStands ? 'ghost' : 'line'}
    x={x - w.r * 0.36}
    y={y - w.r}
    width={w.r * 0.72}
    height={2 * w.r}
    rx={w.r * 0.16}
  />
  <path class="dim" d="M{x - 9 * px} {y}h{18 * px}M{x} {y - 9 * px}v{18 * px}" />
  <text font-size={15 * px} text-anchor="middle" {x} y={24 * px}>{CORNER_WORDS[w.c]}</text>
  <text
    class="fig"
    class:now-word={asked(w.c)}
    style:font-family="Figure"
    font-size={17 * px}
    text-anchor="middle"
    {x}
    y={44 * px}>{load(w.c)}</text
  >
{/each}
{#each mine(views.places) as p, i (i)}
  {@const [x, y] = views.across(p.at)}
  <Dimension x1={x} y1={0} x2={x} y2={y} {px} now={p.lit} />
{/each}

<style>
  .ghost {
    fill: none;
    stroke: var(--scribe-dim);
    stroke-width: 1.2;
    stroke-dasharray: 4 5;
    vector-effect: non-scaling-stroke;
  }
</style>
