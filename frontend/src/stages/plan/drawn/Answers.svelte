<script lang="ts">
  // What the plan can answer as it stands, and what each answer still wants.
  import Card from '$parts/form/Card.svelte';
  import { DRAWN } from '../texts';
  import { answersOf } from './asks';
  import type { PlanDesk } from './plan-desk.svelte';

  type Props = { desk: PlanDesk };
  let { desk }: Props = $props();
  const rows = $derived(answersOf(desk.sheet.draft, desk.every));
</script>

<Card title={DRAWN.can}>
  <ul class="plain">
    {#each rows as row (row.says)}
      <li data-can={row.left.length === 0 || undefined}>
        <b>{row.says}</b>
        <small
          >{#if row.left.length}{DRAWN.more(row.left.length)}
            {row.left.slice(0, 3).join(', ')}{row.left.length > 3 ? '…' : ''}{:else}{DRAWN.canNow}{/if}</small
        >
      </li>
    {/each}
  </ul>
</Card>

<style>
  li {
    border-top: 1px solid var(--edge);
    padding: 6px 0 6px 14px;
    box-shadow: inset 4px 0 var(--steel-light);
  }
  [data-can] {
    box-shadow: inset 4px 0 var(--paint);
  }
  b {
    display: block;
    font-weight: 400;
  }
  [data-can] b {
    font-weight: 700;
  }
  small {
    color: var(--ink-soft);
  }
</style>
