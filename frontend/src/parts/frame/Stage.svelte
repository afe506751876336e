<script lang="ts">
  // The page of a stage: a bar along the top, the drawing and what stands beside it, the tape along the bottom.
  import type { Snippet } from 'svelte';

  type Props = { columns?: string; bar?: Snippet; foot?: Snippet | undefined; children: Snippet };
  let { columns = '47fr 53fr', bar, foot, children }: Props = $props();
  const [left, right] = $derived(columns.split(' '));
</script>

<main style:--columns="minmax(0, {left}) minmax(0, {right})" data-bar={bar ? '' : undefined}>
  {#if bar}<div class="bar">{@render bar()}</div>{/if}
  {@render children()}
  {#if foot}<div class="foot">{@render foot()}</div>{/if}
</main>

<style>
  main {
    display: grid;
    grid-template-columns: var(--columns);
    grid-template-rows: minmax(0, 1fr);
    grid-auto-rows: auto;
    gap: var(--gap-3);
    padding: var(--gap-3);
    height: calc(100vh - var(--rule));
    min-height: 640px;
  }
  main[data-bar] {
    grid-template-rows: auto minmax(280px, 1fr);
  }
  .bar {
    grid-column: 1 / -1;
    display: flex;
    gap: var(--gap-3);
    align-items: center;
    min-width: 0;
  }
  .foot {
    grid-column: 1 / -1;
    min-width: 0;
  }
  @media (max-width: 1000px) {
    main {
      grid-template-columns: minmax(0, 1fr);
      grid-template-rows: auto !important;
      height: auto;
    }
    .bar {
      flex-wrap: wrap;
    }
  }
</style>
