<script lang="ts">
  // What the server would not take: which entry, why, and what can be done. It stands until something is done; recording goes on.
  import type { Waiting } from '$lib/outbox.svelte';
  import { REFUSED } from '../texts';

  type Props = {
    rows: Waiting[];
    retype?: (row: Waiting) => void;
    again: (row: Waiting) => void;
    discard: (row: Waiting) => void;
  };
  let { rows, retype, again, discard }: Props = $props();
  const row = $derived(rows[0]!);
  const typed = $derived('typed' in row.entry.what);
  const keeps = $derived(row.refusal?.code === 'unusual_value' || !typed || (row.refusal?.status ?? 0) >= 500);
</script>

<div class="refused" role="alert">
  <p>
    <b>{REFUSED.head}: {row.title}.</b>
    {row.refusal?.sentence}
    {rows.length > 1 ? REFUSED.more(rows.length - 1) : ''}
  </p>
  {#if typed && retype}<button type="button" class="button" onclick={() => retype(row)}
      ><span>R</span> {REFUSED.retype}</button
    >{/if}
  {#if keeps}<button type="button" class="button" onclick={() => again(row)}
      ><span>K</span> {row.refusal?.code === 'unusual_value' ? REFUSED.keep : REFUSED.again}</button
    >{/if}
  <button type="button" class="button" onclick={() => discard(row)}><span>X</span> {REFUSED.discard}</button>
</div>

<style>
  .refused {
    grid-column: 1 / -1;
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
    align-items: center;
    background: var(--card);
    border-bottom: 2px solid var(--rust);
    padding: 4px 12px;
    position: relative;
    z-index: 1;
  }
  p {
    flex: 1 1 320px;
    color: var(--rust);
    line-height: 1.25;
  }
  .button {
    font-weight: 400;
  }
  .button span {
    color: var(--ink-soft);
  }
</style>
