<script lang="ts">
  // Layout-blue paper with faint scribed squares, the strokes that are drawn on it, and what it says of itself.
  import type { Snippet } from 'svelte';

  type Props = {
    label: string;
    note?: string;
    noteOnTop?: boolean;
    touched?: boolean; // what is drawn can be picked
    children: Snippet<[number, number]>; // with its width and height
  };
  let { label, note = '', noteOnTop = false, touched = false, children }: Props = $props();

  let width = $state(600);
  let height = $state(500);
</script>

<figure bind:clientWidth={width} bind:clientHeight={height}>
  <svg {width} {height} role={touched ? 'group' : 'img'} aria-label={label}>
    <defs
      ><pattern id="squares" width="20" height="20" patternUnits="userSpaceOnUse"><path d="M20 0H0V20" /></pattern
      ></defs
    >
    <rect class="squares" {width} {height} />
    {@render children(width, height)}
  </svg>
  {#if note}<figcaption data-top={noteOnTop || undefined}>{note}</figcaption>{/if}
</figure>

<style>
  figure {
    margin: 0;
    position: relative;
    background: var(--layout);
    border-radius: var(--round);
    color: var(--scribe);
    box-shadow: inset 0 0 60px var(--layout-deep);
    min-height: 0;
    min-width: 0;
    overflow: hidden;
  }
  svg {
    position: absolute;
    inset: 0;
  }
  pattern path {
    fill: none;
    stroke: var(--scribe-dim);
    stroke-opacity: 0.13;
  }
  .squares {
    fill: url('#squares');
  }
  figcaption {
    pointer-events: none;
    position: absolute;
    left: 16px;
    bottom: 10px;
    color: var(--scribe-dim);
    font-size: var(--type-small);
  }
  figcaption[data-top] {
    top: 8px;
    bottom: auto;
  }
  @media (max-width: 700px) {
    figcaption,
    svg :global(.at-length) {
      display: none;
    }
  }
  svg :global(:is(.line, .thin, .dim, .axis, .now, .string)) {
    fill: none;
    stroke: var(--scribe);
    stroke-width: 1.2;
    vector-effect: non-scaling-stroke;
  }
  svg :global(.line) {
    stroke-width: 2;
  }
  svg :global(:is(.dim, .axis)) {
    stroke: var(--scribe-dim);
  }
  svg :global(.axis) {
    stroke-dasharray: 14 4 3 4;
  }
  svg :global(:is(.now, .string)) {
    stroke: var(--paint-light);
  }
  svg :global(.now) {
    stroke-width: 2.4;
  }
  svg :global(.string) {
    stroke-width: 1.6;
  }
  svg :global(text) {
    fill: var(--scribe);
    font-family: 'Label', sans-serif;
  }
  svg :global(text.now-word) {
    fill: var(--paint-light);
    stroke: none;
  }
  svg :global(text.dim-word) {
    fill: var(--scribe-dim);
    stroke: none;
  }
</style>
