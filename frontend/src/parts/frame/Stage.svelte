<script lang="ts">
  // The page of a stage: a bar along the top, the drawing and what stands beside it, the tape along the bottom.
  import type { Snippet } from 'svelte';
  import { router } from '$lib/router.svelte';
  import { FRAME } from '../texts';

  type Props = { columns?: string; bar?: Snippet; above?: Snippet; foot?: Snippet | undefined; children: Snippet };
  let { columns = '47fr 53fr', bar, above, foot, children }: Props = $props();
  // Stages whose page begins with its drawing are named for whoever cannot see it.
  const HEADINGS: Readonly<Record<string, string>> = {
    set: 'Set',
    stance: 'Stance',
    travel: 'Travel',
    jig: 'Jig',
    plan: 'Plan',
  };
  const heading = $derived(router.parts[0] === 'begin' ? FRAME.begin : HEADINGS[router.parts[2] ?? '']);
  const [left, right] = $derived(columns.split(' '));
</script>

<main style:--columns="minmax(0, {left}) minmax(0, {right})" data-bar={bar ? '' : undefined}>
  {#if heading}<h1 class="hidden">{heading}</h1>{/if}
  {#if bar}
    <div class="head">
      <div class="bar">{@render bar()}</div>
      {@render above?.()}
    </div>
  {/if}
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
  .head {
    grid-column: 1 / -1;
    display: grid;
    gap: 8px;
    min-width: 0;
  }
  .bar {
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
      align-content: start;
      height: auto;
    }
    /* On a narrow page the drawing comes first, then the tape, then what stands beside them. */
    main > :global(*) {
      order: 3;
    }
    .head {
      order: 0;
    }
    main > :global([data-drawing]) {
      order: 1;
    }
    main > :global(figure) {
      order: 1;
      height: clamp(220px, 34vh, 420px);
    }
    .foot {
      order: 2;
    }
    .bar {
      flex-wrap: wrap;
    }
  }
  @media (max-width: 700px) {
    main {
      padding: 8px;
      gap: 8px;
    }
    main > :global(figure) {
      height: clamp(170px, 24vh, 300px);
    }
  }
</style>
