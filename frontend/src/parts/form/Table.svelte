<script lang="ts">
  // Figures in rows: names on the left, figures to the right edge of their columns.
  import type { Snippet } from 'svelte';

  type Props = { head?: readonly string[]; small?: boolean; stacked?: boolean; children: Snippet };
  let { head = [], small = false, stacked = false, children }: Props = $props();
</script>

<table class:small class:stacked>
  {#if head.length}<thead
      ><tr
        >{#each head as name, i (i)}{#if name}<th scope="col">{name}</th>{:else}<td></td>{/if}{/each}</tr
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
  /* Too many columns for a narrow page: every row becomes a block, each figure with its name (data-name) over it. */
  @media (max-width: 1100px) {
    .stacked,
    .stacked tbody {
      display: block;
    }
    .stacked thead {
      display: none;
    }
    .stacked tbody :global(tr) {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(88px, 1fr));
      gap: 4px 8px;
      padding: 6px 0;
      height: auto;
    }
    .stacked :global(th) {
      grid-column: 1 / -1;
    }
    .stacked :global(td) {
      padding: 0;
      text-align: left;
      white-space: normal;
    }
    .stacked :global(td::before) {
      content: attr(data-name);
      display: block;
      font-family: 'Label', sans-serif;
      font-size: var(--type-small);
      color: var(--ink-soft);
    }
  }
  .small tbody :global(tr) {
    height: 26px;
  }
</style>
