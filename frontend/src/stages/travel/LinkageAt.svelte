<script lang="ts">
  // One linkage at one row of the drive: its wheels, its links, and what rides on them.
  import type { BodyMoving, Study } from '$lib/api/client';
  import type { Over } from './bench.svelte';
  import { partsAt, WIDE, wheelsAt } from './moving';

  type Props = {
    bodies: BodyMoving[];
    study: Study | null;
    row: number;
    over: Over;
    look: 'planned' | 'built' | 'moved';
    px: number;
  };
  let { bodies, study, row, over, look, px }: Props = $props();
  const NEAR = 0.2; // of its range left: from here on it glows
</script>

<g data-look={look}>
  {#each wheelsAt(bodies, row, over) as wheel, i (i)}
    <rect
      x={-WIDE / 2}
      y={-wheel.radius}
      width={WIDE}
      height={2 * wheel.radius}
      rx={WIDE * 0.16}
      transform="translate({wheel.u} {wheel.v}) rotate({wheel.turn})"
    />
    <circle cx={wheel.u} cy={wheel.v} r={4 * px} />
  {/each}
  {#each partsAt(bodies, study, row, over) as part, i (i)}
    {#if part.left < NEAR}
      <path
        class="glow"
        class:past={part.left < 0}
        d={part.d}
        stroke-opacity={0.25 + 0.6 * (1 - Math.max(part.left, 0) / NEAR)}
      />
    {/if}
    <path data-kind={part.kind} d={part.d} />
  {/each}
</g>

<style>
  rect,
  path,
  circle {
    fill: none;
    stroke: var(--scribe);
    stroke-width: 1.4;
    vector-effect: non-scaling-stroke;
  }
  [data-look='built'] :is(rect, path, circle) {
    stroke: var(--built);
    stroke-width: 3;
  }
  [data-look='moved'] :is(rect, path, circle) {
    stroke: var(--paint-light);
    stroke-width: 2.4;
  }
  [data-kind='upright'] {
    stroke-width: 1;
    stroke-opacity: 0.6;
  }
  [data-kind='spring'] {
    stroke-dasharray: 3 4;
  }
  [data-kind='rod'] {
    stroke-dasharray: 9 4;
  }
  path.glow {
    stroke: var(--paint-light) !important;
    stroke-width: 11 !important;
    stroke-linecap: round;
  }
  path.past {
    stroke: var(--amiss) !important;
  }
</style>
