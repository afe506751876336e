<script lang="ts">
  // A card with its heading, a soft word beside or under it, and what stands on it.
  import type { Snippet } from 'svelte';

  type Props = { title?: string; beside?: string; soft?: string; label?: string; children: Snippet };
  let { title = '', beside = '', soft = '', label = title, children }: Props = $props();
</script>

<section class="card" aria-label={label || undefined}>
  {#if title}<h2>
      {title}
      {#if beside}<small>{beside}</small>{/if}
    </h2>{/if}
  {#if soft}<p class="soft">{soft}</p>{/if}
  {@render children()}
</section>

<style>
  section {
    display: grid;
    gap: var(--gap-2);
    min-width: 0;
    align-content: start;
  }
  h2 {
    font-size: 1.0625rem;
  }
  small {
    font-weight: 400;
    color: var(--ink-soft);
    font-size: var(--type-label);
  }
</style>
