<script lang="ts">
  // Figures in rows: names on the left, figures to the right edge of their columns.
  import type { Snippet } from 'svelte';

  type Props = { head?: readonly string[]; small?: boolean; children: Snippet };
  let { head = [], small = false, children }: Props = $props();
</script>

<table class:small>
  {#if head.length}<thead
      ><tr
        >{#each head as name, i (i)}<th scope="col">{name}</th>{/each}</tr
      ></thead
    >{/if}
  <tbody>{@render children()}</tbody>
</table>

<style>
  table {
    border-collapse: collapse;
    width: 100%;
    font-size: 0.9375rem;
  }
  .small {
    font-size: var(--type-label);
  }
  table :global(th) {
    text-align: left;
    font-weight: 400;
  }
  thead th {
    color: var(--ink-soft);
    font-size: var(--type-label);
    padding-left: 8px;
    position: sticky;
    top: 0;
    background: var(--card);
  }
  table :global(.soft) {
    font-size: inherit;
  }
  thead th + th,
  table :global(td) {
    text-align: right;
    white-space: nowrap;
    padding-left: 8px;
  }
  table :global(td[colspan]) {
    text-align: left;
    white-space: normal;
  }
  tbody :global(tr) {
    border-top: 1px solid var(--edge);
    height: 30px;
  }
  .small tbody :global(tr) {
    height: 26px;
  }
</style>
