<script lang="ts">
  // Lines of the frame: its shape, what was read from pin to pin, what is wrong, and the reading in hand.
  import type { JigView } from '$lib/api/client';
  import { type FrameView, type Point, shapeOf, tubesOf } from './frame-view';
  import Hooked from './Hooked.svelte';

  type Props = { frame: FrameView; view: JigView; seen: Point[]; chosen: string[]; typed: string };
  let { frame, view, seen, chosen, typed }: Props = $props();
  const tubes = $derived(tubesOf(seen).map(([a, b]) => frame.between(a, b)));
  const shape = $derived(shapeOf(seen));
  const read = $derived(view.readings.filter((r) => r.counts && r.points.length === 2));
  const wrong = $derived(view.readings.filter((r) => r.wrong));
  const point = (name: string | undefined) => view.points.find((p) => p.name === name);
  const line = (a: string | undefined, b: string | undefined) => frame.line(point(a), point(b));
</script>

{#each read as r (r.number)}<path class="read" d={line(r.points[0], r.points[1])} />{/each}
{#each tubes as d, i (i)}<path class="tube" {d} />{/each}
{#each tubes as d, i (i)}<path class="inside" {d} />{/each}
{#each shape as [p, q], i (i)}<path class="shape" d={frame.line(p, q)} />{/each}
{#each wrong as r (r.number)}<path class="wrong" d={line(r.points[0], r.points[1] ?? r.points[0])} />{/each}
<Hooked {frame} from={point(chosen[0])} to={point(chosen[1])} {typed} />
<Hooked {frame} from={point(chosen[2])} to={point(chosen[3])} typed="" />

<style>
  path {
    fill: none;
    stroke: var(--scribe-dim);
  }
  .shape {
    stroke: var(--scribe);
    stroke-width: 2.6;
    stroke-linecap: round;
  }
  .read {
    stroke-opacity: 0.28;
    stroke-width: 1;
  }
  .wrong {
    stroke: var(--amiss);
    stroke-width: 3;
    stroke-dasharray: 8 5;
  }
  .tube {
    stroke: var(--scribe-dim);
    stroke-width: 11;
    stroke-linecap: round;
  }
  .inside {
    stroke: color-mix(in srgb, var(--layout), var(--scribe-dim) 26%);
    stroke-width: 8.4;
    stroke-linecap: round;
  }
</style>
