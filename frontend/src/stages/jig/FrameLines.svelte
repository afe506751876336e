<script lang="ts">
  // Lines of the frame: its shape, what was read from pin to pin, what is wrong, and the reading in hand.
  import type { JigView } from '$lib/api/client';
  import { type FrameView, type Point, shapeOf } from './frame-view';

  type Props = { frame: FrameView; view: JigView; seen: Point[]; chosen: string[] };
  let { frame, view, seen, chosen }: Props = $props();
  const shape = $derived(shapeOf(seen));
  const read = $derived(view.readings.filter((r) => r.counts && r.points.length === 2));
  const wrong = $derived(view.readings.filter((r) => r.wrong));
  const point = (name: string | undefined) => view.points.find((p) => p.name === name);
  const line = (a: string | undefined, b: string | undefined) => frame.line(point(a), point(b));
</script>

{#each shape as [p, q] (p.name + q.name)}<path class="shape" d={frame.line(p, q)} />{/each}
{#each read as r (r.number)}<path class="read" d={line(r.points[0], r.points[1])} />{/each}
{#each wrong as r (r.number)}<path class="wrong" d={line(r.points[0], r.points[1] ?? r.points[0])} />{/each}
<path class="now" d={line(chosen[0], chosen[1])} />
<path class="now" d={line(chosen[2], chosen[3])} />

<style>
  path {
    fill: none;
    stroke: var(--scribe-dim);
  }
  .shape {
    stroke-opacity: 0.55;
    stroke-width: 1.2;
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
  .now {
    stroke: var(--paint-light);
    stroke-width: 2.5;
  }
</style>
