<script lang="ts">
  // From one side: wheels or hubs, and the heights over the floor.
  import { isLeft } from '$lib/marks';
  import Chassis from './Chassis.svelte';
  import HeightAt from './HeightAt.svelte';
  import HubAt from './HubAt.svelte';
  import type { StanceViews } from './stance-views';

  type Props = { views: StanceViews; px: number };
  let { views, px }: Props = $props();
  const { onStands, corner } = $derived(views.shown);
  const box = $derived(views.sideBox);
  const mine = <T extends { c: Parameters<typeof isLeft>[0] }>(rows: T[]) =>
    rows.filter((r) => isLeft(r.c) === isLeft(corner));
</script>

<path class="line" d="M{box.x} 0H{box.x + box.w}" />
<Chassis {views} flat={views.along} foot={60} />
{#each mine(views.wheels) as wheel (wheel.c)}
  {@const [x, y] = views.along(wheel.at)}
  <circle class={onStands ? 'ghost' : 'line'} cx={x} cy={y} r={wheel.r} />
  <circle class="thin" cx={x} cy={y} r={onStands ? 46 : wheel.rim} />
  {#if onStands}<HubAt {views} {wheel} {px} />
  {:else}<path class="dim" d="M{x} {y - 10 * px}v{20 * px}M{x - 10 * px} {y}h{20 * px}" />{/if}
{/each}
{#each mine(views.places) as place (place.c)}<HeightAt {views} {place} {px} />{/each}

<style>
  .ghost {
    fill: none;
    stroke: var(--scribe-dim);
    stroke-width: 1.2;
    stroke-dasharray: 4 5;
    vector-effect: non-scaling-stroke;
  }
</style>
