<script lang="ts">
  // What the scales say: cross weight with its aim, and what it will be after the turns.
  import type { CarView, StanceView } from '$lib/api/client';
  import { markOf } from '$lib/marks';
  import Witness from '$parts/Witness.svelte';
  import { STANCE } from './texts';

  type Props = { view: CarView; stance: StanceView };
  let { view, stance }: Props = $props();
  const cross = $derived(markOf(view, 'car.cross_weight'));
</script>

{#if stance.loads.length}
  <div>
    <Witness state={cross.state} size={26} />
    <p>
      {stance.loads.slice(4).join(', ')}{#if cross.say_aim}; {cross.say_aim}{/if}{#if stance.cross_then}, {STANCE.then}
        <b class="fig">{stance.cross_then}</b>{/if}
    </p>
  </div>
{/if}
{#each stance.load_says as line, i (i)}<p class="no">{line}</p>{/each}

<style>
  div {
    display: flex;
    gap: 0 8px;
    align-items: center;
    font-size: 0.9375rem;
  }
</style>
