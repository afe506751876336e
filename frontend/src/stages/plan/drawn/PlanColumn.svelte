<script lang="ts">
  // Figures that stand together on the drawing, one under the other, each a live place.
  import type { PlanAsk } from './ask';
  import PlanPlace from './PlanPlace.svelte';
  import type { PlanDesk } from './plan-desk.svelte';

  type Props = { desk: PlanDesk; px: number; asks: PlanAsk[]; x: number; y: number; step?: number };
  let { desk, px, asks, x, y, step = 46 }: Props = $props();
</script>

{#each asks as ask, i (ask.path)}
  <PlanPlace {desk} {px} path={ask.path} at={{ x, y: y + i * step * px, after: true }} />
{/each}
