<script lang="ts">
  // Layout-blue paper on which what is drawn is in millimetres of the car, fitted to scale.
  import type { Snippet } from 'svelte';
  import Paper from './Paper.svelte';

  type Props = {
    label: string;
    box: { x: number; y: number; w: number; h: number };
    note?: string;
    noteOnTop?: boolean;
    touched?: boolean; // what is drawn can be picked
    children: Snippet<[number]>;
  };
  let { label, box, note = '', noteOnTop = false, touched = false, children: drawn }: Props = $props();

  /** One unit is one millimetre of the car; children divide by the scale to draw in screen units. */
  function fitted(width: number, height: number): { scale: number; x: number; y: number } {
    const pad = width < 500 ? 22 : 34;
    const scale = Math.max(Math.min((width - 2 * pad) / box.w, (height - 2 * pad) / box.h), 0.01);
    return { scale, x: width / 2 - scale * (box.x + box.w / 2), y: height / 2 - scale * (box.y + box.h / 2) };
  }
</script>

<Paper {label} {note} {noteOnTop} {touched}>
  {#snippet children(width, height)}
    {@const { scale, x, y } = fitted(width, height)}
    <g transform="translate({x} {y}) scale({scale})">{@render drawn(1 / scale)}</g>
  {/snippet}
</Paper>
