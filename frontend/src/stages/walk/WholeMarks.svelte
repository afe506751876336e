<script lang="ts">
  // The marks of axles and of the car as a whole, where they have an aim or a value.
  import type { CarView } from '$lib/api/client';
  import { WHOLE_MARKS, wholeName } from '$lib/kinds';
  import { markOf } from '$lib/marks';
  import MarkCell from './MarkCell.svelte';
  import { WALK } from './texts';

  type Props = { view: CarView };
  let { view }: Props = $props();
  const whole = $derived(WHOLE_MARKS.map((m) => markOf(view, m)).filter((m) => m.aim || m.value !== null));
</script>

{#if whole.length}
  <h2>{WALK.whole}</h2>
  <div>
    {#each whole as mark (mark.mark)}
      <section><small>{wholeName(mark.mark)}</small><MarkCell {mark} label={wholeName(mark.mark)} /></section>
    {/each}
  </div>
{/if}

<style>
  h2 {
    font-size: 1rem;
    border-top: 1px solid var(--edge);
    padding-top: 8px;
  }
  div {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(195px, 1fr));
    gap: 6px 12px;
    margin-top: 4px;
  }
  small {
    color: var(--ink-soft);
    font-size: var(--type-label);
  }
</style>
