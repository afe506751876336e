<script lang="ts">
  // What is to be known first of a stage, in its bar; amiss in rust.
  import type { Snippet } from 'svelte';

  type Props = { amiss?: boolean; children: Snippet };
  let { amiss = false, children }: Props = $props();
</script>

<div role="status" class:amiss>{@render children()}</div>

<style>
  div {
    min-width: 0;
    line-height: 1.2;
    font-size: 0.9rem;
    max-height: 58px;
    overflow: auto;
  }
  @media (max-width: 1000px) {
    div {
      max-height: none;
    }
  }
  .amiss {
    color: var(--rust);
  }
</style>
