<script lang="ts">
  // A page that is no stage of a car: its title, and one column.
  import type { Snippet } from 'svelte';

  type Props = { title: string; children: Snippet };
  let { title, children }: Props = $props();
</script>

<main>
  <h1>{title}</h1>
  {@render children()}
</main>

<style>
  main {
    padding: var(--gap-4);
    max-width: 900px;
    width: 100%;
    margin: 0 auto;
    display: grid;
    gap: var(--gap-3);
    justify-items: start;
    align-content: start;
  }
  h1 {
    font-size: var(--type-head);
  }
</style>
