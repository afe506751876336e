<script lang="ts">
  // What waits in this browser, and what was not taken with the reason.
  import type { Car } from '$lib/car.svelte';
  import { REFUSED } from '$parts/texts';
  import { LOG } from './texts';

  type Props = { car: Car };
  let { car }: Props = $props();
</script>

<h2>{LOG.waiting}</h2>
<ul class="plain">
  {#each car.waiting as row (row.entry.id)}
    <li data-refused={row.refusal ? '' : undefined}>
      <span>{row.title}</span>
      {#if row.refusal}
        <b class="no">{LOG.notTaken}: {row.refusal.sentence}</b>
        <small>{row.refusal.status >= 500 ? LOG.fault : LOG.retype}</small>
        <button class="button" type="button" onclick={() => car.again(row)}
          >{row.refusal.code === 'unusual_value' ? REFUSED.keep : REFUSED.again}</button
        >
        <button class="button" type="button" onclick={() => car.discard(row.entry.id)}>{LOG.discard}</button>
      {/if}
    </li>
  {/each}
</ul>

<style>
  h2 {
    font-size: 1rem;
    margin-bottom: 6px;
  }
  li {
    border-top: 1px solid var(--edge);
    padding: 4px 0;
    min-height: 52px;
  }
  small {
    color: var(--ink-soft);
    font-size: var(--type-label);
  }
  .button {
    font-weight: 400;
    border-color: var(--edge);
  }
</style>
