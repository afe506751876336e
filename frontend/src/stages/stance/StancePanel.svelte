<script lang="ts">
  // What stands beside the drawing, by the tab that is open.
  import type { Corner, StanceView } from '$lib/api/client';
  import Corners from './Corners.svelte';
  import OnStands from './OnStands.svelte';
  import Perches from './Perches.svelte';
  import Springs from './Springs.svelte';
  import type { Standing } from './standing.svelte';
  import State from './State.svelte';
  import Sums from './Sums.svelte';

  type Props = { standing: Standing; stance: StanceView; springAt: Corner; onspring: (corner: Corner) => void };
  let { standing, stance, springAt, onspring }: Props = $props();
  const { car, desk, tab } = $derived(standing);
  const view = $derived(car.view!);
</script>

{#if tab === 'floor'}
  <Perches {car} {view} {stance} onturn={(p) => desk.openTurn(p.corner, p.adjuster)} />
  <Corners {view} {stance} onpick={(c) => desk.open(`${c}/height`)} />
{:else if tab === 'stands'}<OnStands {stance} onpick={(c) => desk.open(`${c}/hub`)} />
{:else if tab === 'springs'}<Springs {stance} corner={springAt} onpick={onspring} />
{:else if tab === 'state'}<State {car} {view} {stance} />
{:else}<Sums {car} {stance} />{/if}
