<script lang="ts">
  // A label over its field, and what is wrong with it or why it is asked under it. How every field of a form looks is said here.
  import type { Snippet } from 'svelte';

  type Props = { label: string; problem?: string; why?: string; echo?: string; bare?: boolean; children: Snippet };
  let { label, problem = '', why = '', echo = '', bare = false, children }: Props = $props();
</script>

<label>
  <span class:hidden={bare}>{label}</span>
  {@render children()}
  {#if problem}<small class="no" role="alert">{problem}</small>
  {:else if echo}<small role="status">{echo}</small>
  {:else if why}<small>{why}</small>{/if}
</label>

<style>
  label {
    display: grid;
    gap: 1px;
    align-content: start;
    min-width: 0;
  }
  span,
  small {
    color: var(--ink-soft);
    font-size: var(--type-label);
    line-height: 1.2;
  }
  .no {
    color: var(--rust);
    font-weight: 700;
  }
</style>
