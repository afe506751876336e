<script lang="ts">
  // How the wheels of an end are held: the layouts, each drawn.
  import LayoutGlyph from './LayoutGlyph.svelte';
  import type { LinkagePoints } from './linkage-points.svelte';
  import { PLAN } from './texts';

  type Props = { held: LinkagePoints };
  let { held }: Props = $props();
  const BY: Readonly<Record<string, number>> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };
  /** As of any choice of one: the arrows go from tile to tile. */
  function follow(event: KeyboardEvent): void {
    const by = BY[event.key];
    const tiles = [...(event.currentTarget as Element).querySelectorAll<HTMLElement>('[role=radio]')];
    const at = tiles.indexOf(document.activeElement as HTMLElement);
    if (!by || at < 0) return;
    event.preventDefault();
    const next = (at + by + tiles.length) % tiles.length;
    held.choose(held.sheet.layouts[next]!.name);
    tiles[next]!.focus();
  }
</script>

<div role="radiogroup" tabindex="-1" aria-label="{PLAN.axles[held.end]}, {PLAN.layout}" onkeydown={follow}>
  {#each held.sheet.layouts as one, i (i)}
    <button
      type="button"
      role="radio"
      aria-checked={held.linkage?.layout === one.name}
      tabindex={(held.linkage ? held.linkage.layout === one.name : i === 0) ? 0 : -1}
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
