<script lang="ts">
  // What stands beside the drawing of a stage; it scrolls by itself.
  import type { Snippet } from 'svelte';

  type Props = { label?: string; children: Snippet };
  let { label, children }: Props = $props();
</script>

<div role={label ? 'group' : undefined} aria-label={label}>{@render children()}</div>

<style>
  div {
    display: grid;
    gap: 8px;
    align-content: start;
    overflow: auto;
    min-height: 0;
    min-width: 0;
  }
  @media (max-width: 1000px) {
    div {
      overflow: visible;
    }
  }
</style>
