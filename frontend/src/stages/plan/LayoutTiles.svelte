<script lang="ts">
  // How the wheels of an end are held: the layouts, each drawn.
  import LayoutGlyph from './LayoutGlyph.svelte';
  import type { LinkagePoints } from './linkage-points.svelte';
  import { PLAN } from './texts';

  type Props = { held: LinkagePoints };
  let { held }: Props = $props();
</script>

<div role="radiogroup" aria-label="{PLAN.axles[held.end]}, {PLAN.layout}">
  {#each held.sheet.layouts as one (one.name)}
    <button
      type="button"
      role="radio"
      aria-checked={held.linkage?.layout === one.name}
      onclick={() => held.choose(one.name)}
      title={one.words}><LayoutGlyph name={one.name} /><span>{one.name}</span></button
    >
  {/each}
</div>

<style>
  div {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(96px, 1fr));
    gap: 6px;
  }
  button {
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--paper);
    padding: 4px;
    cursor: pointer;
    display: grid;
    justify-items: center;
    font-size: var(--type-label);
    min-height: var(--touch);
    overflow: hidden;
  }
  [aria-checked='true'] {
    border: 3px solid var(--layout);
    padding: 2px;
    font-weight: 700;
  }
</style>
