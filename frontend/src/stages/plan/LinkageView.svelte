<script lang="ts">
  // One view of the points of an end: tyres, what joins the points, links, and the points.
  import type { Layout } from '$lib/api/client';
  import { isWheel, type Spot, type View, WIDE } from './linkage-views';

  type Props = {
    view: View;
    spots: Spot[];
    parts: (readonly [string, string])[];
    layout: Layout;
    radius: number;
    lit: string;
    named?: boolean; // the lit point with its name
    onpick: (name: string) => void;
  };
  let { view, spots, parts, layout, radius, lit, named = true, onpick }: Props = $props();

  const wheels = $derived(spots.filter(isWheel));
  const outers = $derived(layout.axle ? [] : [...new Set(layout.lines.map((l) => l.outer))]);
  const lineOf = (from: Spot | undefined, to: Spot | undefined) => {
    if (!from || !to) return '';
    const [a, b] = [view.at(from), view.at(to)];
    return `M${a.u} ${a.v}L${b.u} ${b.v}`;
  };
  const of = (name: string) => spots.find((s) => s.name === name);
  const line = (from: string, to: string) => lineOf(of(from), of(to));
  const broken = (...names: string[]) => names.some((n) => of(n)?.guessed) || undefined;
</script>

<text x={view.left + 14} y="22" dominant-baseline="middle">{view.title}</text>
{#each wheels as wheel, i (i)}
  {@const p = view.at(wheel)}
  {@const [w, h] = [WIDE * view.scale, 2 * radius * view.scale]}
  <rect x={p.u - w / 2} y={p.v - h / 2} width={w} height={h} rx="4" data-broken={wheel.guessed || undefined} />
  {#each outers as outer, i (i)}<path class="dim" d={line(wheel.name, outer)} />{/each}
{/each}
{#each parts as [from, to], i (i)}<path class="part" d={line(from, to)} />{/each}
{#each layout.lines as one, i (i)}<path
    d={line(one.inner, one.outer)}
    data-broken={broken(one.inner, one.outer)}
  />{/each}
{#each spots as spot, i (i)}
  {@const p = view.at(spot)}
  {@const name = spot.name.replaceAll('.', ' ')}
  <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions (the table beside it is the keyboard's way) -->
  <circle
    cx={p.u}
    cy={p.v}
    r={spot.name === lit ? 7 : isWheel(spot) ? 6 : 3.5}
    data-lit={spot.name === lit || undefined}
    data-wheel={isWheel(spot) || undefined}
    data-broken={spot.guessed}
    onclick={() => onpick(spot.name)}><title>{name}</title></circle
  >
  {#if named && spot.name === lit}
    <text class="lit" x={p.u} y={p.v - 12} text-anchor={p.u > view.left + (view.wide * 2) / 3 ? 'end' : 'start'}
      >{name}</text
    >
  {/if}
{/each}

<style>
  rect {
    fill: none;
    stroke: var(--scribe-dim);
    stroke-width: 1.4;
  }
  path {
    stroke: var(--scribe);
    stroke-width: 1.8;
    fill: none;
  }
  .dim {
    stroke: var(--scribe-dim);
    stroke-width: 1;
  }
  .part {
    stroke: var(--scribe-dim);
    stroke-width: 1.6;
    stroke-dasharray: 6 3;
  }
  [data-broken] {
    stroke-dasharray: 5 5;
    stroke-width: 1.2;
  }
  text {
    fill: var(--scribe-dim);
    font-size: calc(14px * var(--px));
  }
  .lit {
    fill: var(--paint-light);
    font-weight: 700;
  }
  circle {
    fill: var(--layout);
    stroke: var(--scribe);
    stroke-width: 1.6;
    cursor: pointer;
  }
  circle[data-wheel] {
    stroke-width: 2.4;
  }
  circle[data-lit] {
    fill: var(--paint-light);
    stroke: var(--paint-light);
  }
</style>
