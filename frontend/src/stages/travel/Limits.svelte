<script lang="ts">
  // What comes first over the travel: joints, rods, tyres, with what is left of each.
  import type { Bench } from './bench.svelte';
  import { TRAVEL } from './texts';

  type Props = { bench: Bench };
  let { bench }: Props = $props();
  const limits = $derived(((bench.moved ?? bench.planned)?.limits ?? []).slice(0, 3));
</script>

{#if limits.length}
  <h3>{TRAVEL.limits}</h3>
  <ol class="plain">
    {#each limits as limit, i (i)}
      {@const past = limit.left < 0}
      <li class:no={past}>
        <span>{limit.what}</span>
        <b>{limit.say}</b>
      </li>
    {/each}
  </ol>
{/if}

<style>
  h3 {
    font-size: var(--type-small);
    border-top: 1px solid var(--edge);
    padding-top: 4px;
  }
  ol {
    font-size: var(--type-small);
  }
  li {
    display: flex;
    justify-content: space-between;
    gap: 10px;
  }
  li:not(.no) b {
    font-weight: 400;
  }
</style>
