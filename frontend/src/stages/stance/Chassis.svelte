<script lang="ts">
  // The chassis on one plate as it stands, the wanted stance thin behind it, and the stands under it.
  import { type Flat, hull, laid, path, type Point } from './chassis';
  import type { StanceViews } from './stance-views';

  type Props = { views: StanceViews; flat: (p: Point) => Flat; foot: number };
  let { views, flat, foot }: Props = $props();
  const { onStands } = $derived(views.shown);
  const wanted = $derived(onStands ? { ...views.wanted, height: views.now.height } : views.wanted);
  const outline = (attitude: typeof views.now) => path(hull(views.body.map((p) => flat(laid(attitude, p)))));
</script>

<path class="wanted" d={outline(wanted)} />
<path class="body" d={outline(views.now)} />
{#if onStands}
  {#each views.stands as s, i (i)}
    {@const [x, y] = flat(s)}
    <path class="stand" d="M{x} {y}L{x - foot} 0H{x + foot}Z" />
  {/each}
{/if}

<style>
  path {
    vector-effect: non-scaling-stroke;
  }
  .body {
    fill: var(--scribe);
    fill-opacity: 0.07;
    stroke: var(--scribe);
    stroke-width: 1.6;
  }
  .wanted {
    fill: none;
    stroke: var(--paint-light);
    stroke-width: 1;
    stroke-dasharray: 6 4;
  }
  .stand {
    fill: var(--scribe-dim);
    fill-opacity: 0.16;
    stroke: var(--scribe-dim);
    stroke-width: 1.4;
  }
</style>
