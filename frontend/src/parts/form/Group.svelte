<script lang="ts">
  // Fields that belong together, framed under their name.
  import type { Snippet } from 'svelte';

  type Props = { title: string; soft?: string; children: Snippet };
  let { title, soft = '', children }: Props = $props();
</script>

<fieldset>
  <legend>{title}</legend>
  {#if soft}<p class="soft">{soft}</p>{/if}
  {@render children()}
</fieldset>

<style>
  fieldset {
    border: 1px solid var(--edge);
    border-radius: var(--round);
    padding: 4px 10px 8px;
    margin: 0;
    min-width: 0;
    display: grid;
    gap: 6px;
  }
  legend {
    font-weight: 700;
    padding: 0 4px;
  }
</style>
