<script lang="ts">
  // Layout-blue plate with faint scribed squares; what is drawn on it is in millimetres of the car, fitted to scale.
  import type { Snippet } from 'svelte';

  type Props = {
    label: string;
    box: { x: number; y: number; w: number; h: number };
    note?: string;
    noteOnTop?: boolean;
    touched?: boolean; // what is drawn can be picked
    children: Snippet<[number]>;
  };
  let { label, box, note = '', noteOnTop = false, touched = false, children }: Props = $props();

  let width = $state(600);
  let height = $state(500);
  const PAD = $derived(width < 500 ? 22 : 34);
  const scale = $derived(Math.max(Math.min((width - 2 * PAD) / box.w, (height - 2 * PAD) / box.h), 0.01));
  const tx = $derived(width / 2 - scale * (box.x + box.w / 2));
  const ty = $derived(height / 2 - scale * (box.y + box.h / 2));
</script>

<figure bind:clientWidth={width} bind:clientHeight={height}>
  <svg {width} {height} role={touched ? 'group' : 'img'} aria-label={label}>
    <defs
      ><pattern id="squares" width="20" height="20" patternUnits="userSpaceOnUse"><path d="M20 0H0V20" /></pattern
      ></defs
    >
    <rect class="squares" {width} {height} />
    <!-- One unit is one millimetre of the car; children divide by the scale to draw in screen units. -->
    <g transform="translate({tx} {ty}) scale({scale})">{@render children(1 / scale)}</g>
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
  svg :global(.line) {
    fill: none;
    stroke: var(--scribe);
    stroke-width: 2;
    vector-effect: non-scaling-stroke;
  }
  svg :global(.thin) {
    fill: none;
    stroke: var(--scribe);
    stroke-width: 1.2;
    vector-effect: non-scaling-stroke;
  }
  svg :global(.dim) {
    fill: none;
    stroke: var(--scribe-dim);
    stroke-width: 1.2;
    vector-effect: non-scaling-stroke;
  }
  svg :global(.axis) {
    fill: none;
    stroke: var(--scribe-dim);
    stroke-width: 1.2;
    stroke-dasharray: 14 4 3 4;
    vector-effect: non-scaling-stroke;
  }
  svg :global(.now) {
    fill: none;
    stroke: var(--paint-light);
    stroke-width: 2.4;
    vector-effect: non-scaling-stroke;
  }
  svg :global(.string) {
    fill: none;
    stroke: var(--paint-light);
    stroke-width: 1.6;
    vector-effect: non-scaling-stroke;
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
