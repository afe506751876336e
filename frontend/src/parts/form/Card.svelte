<script lang="ts">
  // A card with its heading, a soft word beside or under it, and what stands on it.
  import type { Snippet } from 'svelte';
  import { hands } from '$lib/hands.svelte';
  import { chapters } from './chapters';
  import Folded from './Folded.svelte';

  type Props = { title?: string; beside?: string; soft?: string; label?: string; children: Snippet };
  let { title = '', beside = '', soft = '', label = title, children }: Props = $props();
  const isChapter = chapters();
</script>

{#snippet inside()}
  {#if soft}<p class="soft">{soft}</p>{/if}
  {@render children()}
{/snippet}
<section class="card" aria-label={label || undefined}>
  {#if isChapter() && hands.small}
    <Folded {title} chapter>{@render inside()}</Folded>
  {:else}
    {#if title}<h2>
        {title}
        {#if beside}<small>{beside}</small>{/if}
      </h2>{/if}
    {@render inside()}
  {/if}
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
