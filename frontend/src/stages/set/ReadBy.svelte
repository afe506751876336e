<script lang="ts">
  // In which way the mark in hand is read; another one is a change of the plan.
  import { MARK_KINDS, QUANTITIES } from '$lib/kinds';
  import type { RoundDesk } from '$parts/tape/round.svelte';
  import { SET } from './texts';

  type Props = { desk: RoundDesk };
  let { desk }: Props = $props();

  const kind = $derived(
    QUANTITIES[desk.ask.quantity].marks.find((k) => Object.keys(MARK_KINDS[k]!.ways).length > 1) ?? '',
  );
  const ways = $derived(kind ? MARK_KINDS[kind]!.ways : {});
  const now = $derived(desk.view.plan.ways.read_by?.[kind] ?? Object.keys(ways)[0]);
</script>

{#if kind}
  <label>
    {SET.readBy(MARK_KINDS[kind]!.label)}
    <select class="field" value={now} onchange={(e) => void desk.readBy(kind, e.currentTarget.value)}>
      {#each Object.entries(ways) as [way, words] (way)}<option value={way}>{words}</option>{/each}
    </select>
  </label>
{/if}

<style>
  label {
    display: flex;
    gap: 10px;
    align-items: center;
    color: var(--ink-soft);
    font-size: var(--type-small);
  }
  select {
    flex: 1;
    min-height: var(--touch);
  }
</style>
