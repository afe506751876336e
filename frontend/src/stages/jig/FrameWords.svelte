<script lang="ts">
  // What the drawing of the frame says of itself: its sides, its magnification, its signs.
  import type { Side } from './frame-view';
  import { JIG, MAGNIFIED } from './texts';

  type Props = { side: Side; width: number; height: number; pulled: boolean };
  let { side, width, height, pulled }: Props = $props();
  const narrow = $derived(width < 560); // there the ways of looking stand where the sides are named
  const x = $derived(width - 138);
</script>

{#if side === 'above' && !narrow}
  <text x={width / 2} y="80" text-anchor="middle">{JIG.sides.right}</text>
  <text x={width / 2} y={height - 36} text-anchor="middle">{JIG.sides.left}</text>
{/if}
<text x="14" y={height - 14}
  >{narrow ? JIG.scaleShort(MAGNIFIED) : JIG.scale(MAGNIFIED)}{side === 'wire' && !narrow ? ` ${JIG.turn}` : ''}</text
>
<circle class="ring" cx={x - 12} cy="20" r="4.5" /><text {x} y="25">{JIG.legend.planned}</text>
<circle class="got" cx={x - 12} cy="40" r="4.5" /><text {x} y="45">{JIG.legend.found}</text>
{#if pulled}<path d="M{x - 20} 60h16" /><text {x} y="65">{JIG.legend.moved}</text>{/if}

<style>
  text {
    fill: var(--scribe-dim);
    font-size: 14px;
  }
  .ring {
    fill: var(--layout);
    stroke: var(--scribe);
    stroke-width: 1.4;
  }
  .got {
    fill: var(--scribe);
  }
  path {
    stroke: var(--built);
    stroke-width: 2.4;
  }
</style>
