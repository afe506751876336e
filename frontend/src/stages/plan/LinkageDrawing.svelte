<script lang="ts">
  // The points of one end to scale: from behind on the left, from above on the right; the point in hand is lit.
  import type { Layout, Linkage } from '$lib/api/client';
  import type { Draft } from './draft';
  import LinkageView from './LinkageView.svelte';
  import { H, partsOf, RADIUS, spotsOf, viewsOf, W } from './linkage-views';

  type Props = {
    points: Draft['points'];
    layout: Layout;
    linkage: Linkage;
    prefix: string;
    lit: string;
    label: string;
    onpick: (name: string) => void;
  };
  let { points, layout, linkage, prefix, lit, label, onpick }: Props = $props();
  let wide = $state(W);
  const spots = $derived(spotsOf(points, prefix, layout.axle));
  const parts = $derived(partsOf(linkage));
</script>

<svg viewBox="0 0 {W} {H}" role="img" aria-label={label} bind:clientWidth={wide} style:--px={W / (wide || W)}>
  <rect width={W} height={H} rx="3" />
  {#if !spots.length}<text x={W / 2} y={H / 2} text-anchor="middle">No point is given yet.</text>{/if}
  {#each viewsOf(spots, linkage.loaded_radius ?? RADIUS) as view (view.title)}
    <LinkageView {view} {spots} {parts} {layout} radius={linkage.loaded_radius ?? RADIUS} {lit} {onpick} />
  {/each}
  <path d="M{W / 2} 12V{H - 12}" />
</svg>

<style>
  svg {
    width: 100%;
    height: auto;
    display: block;
  }
  rect {
    fill: var(--layout);
  }
  path {
    stroke: var(--scribe-dim);
    stroke-dasharray: 14 4 3 4;
  }
  text {
    fill: var(--scribe-dim);
    font-size: calc(14px * var(--px));
  }
</style>
