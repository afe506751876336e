<script lang="ts">
  // How far the seats of a spring go out of line over its travel.
  import Table from '$parts/form/Table.svelte';
  import type { StanceView } from '$lib/api/client';
  import { SPRINGS } from './texts';

  type Props = { seats: StanceView['corners'][number]['springs'][number]['seats'] };
  let { seats }: Props = $props();
</script>

<h2>{SPRINGS.seats}</h2>
<Table head={SPRINGS.seatColumns}>
  {#each seats as [at, along, across, bow], i (i)}
    <tr><th scope="row">{at}</th><td class="fig">{along}</td><td class="fig">{across}</td><td class="fig">{bow}</td></tr
    >
  {/each}
</Table>

<style>
  h2 {
    font-size: 1rem;
  }
</style>
