<script lang="ts">
  // A page that has nothing to show yet: why, and where to go.
  import type { Snippet } from 'svelte';

  type Props = { says: string; alarming?: boolean; children?: Snippet };
  let { says, alarming = false, children }: Props = $props();
</script>

<section class="card">
  <p role={alarming ? 'alert' : 'status'}>{says}</p>
  {@render children?.()}
</section>

<style>
  section {
    grid-column: 1 / -1;
    align-self: start;
    display: grid;
    gap: var(--gap-3);
    justify-items: start;
  }
</style>
