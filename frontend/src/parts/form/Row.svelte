<script lang="ts">
  // Fields in a row of so many equal columns; with `end`, what comes last takes only the room it needs.
  import type { Snippet } from 'svelte';

  type Props = { cols?: number; end?: boolean; top?: boolean; label?: string; title?: string; children: Snippet };
  let { cols = 0, end = false, top = false, label, title, children }: Props = $props();
  const columns = $derived(
    cols ? `repeat(${cols}, minmax(0, 1fr))${end ? ' auto' : ''}` : 'repeat(auto-fit, minmax(112px, 1fr))',
  );
</script>

<div style:--columns={columns} class:top role={label ? 'group' : undefined} aria-label={label} {title}>
  {@render children()}
</div>

<style>
  div {
    display: grid;
    grid-template-columns: var(--columns);
    gap: 8px 10px;
    align-items: end;
    min-width: 0;
  }
  @media (max-width: 1000px) {
    div {
      grid-template-columns: repeat(auto-fit, minmax(min(112px, 100%), 1fr));
    }
  }
  .top {
    align-items: start;
  }
</style>
