<script lang="ts">
  // The walk of a lift on the car from above: a numbered stop beside every wheel that is turned at, and the way between them.
  import type { Corner } from '$lib/api/client';

  type Place = { corner: Corner; side: number; x: number; y: number; fat: number };
  type Props = { px: number; places: Place[]; stops: { corner: Corner; done: boolean; say: string }[]; now: Corner };
  let { px, places, stops, now }: Props = $props();

  const at = $derived(
    stops.flatMap((stop) => {
      const place = places.find((p) => p.corner === stop.corner);
      return place
        ? [{ ...stop, side: place.side, x: place.x + place.side * (place.fat / 2 + 34 * px), y: place.y }]
        : [];
    }),
  );
</script>

<polyline class="way" points={at.map(({ x, y }) => `${x},${y}`).join(' ')} />
{#each at as stop, i (stop.corner)}
  <circle class={stop.corner === now || stop.done ? 'full' : 'ring'} cx={stop.x} cy={stop.y} r={17 * px} />
  <text
    class={stop.corner === now || stop.done ? 'on' : 'off'}
    font-size={17 * px}
    text-anchor="middle"
    x={stop.x}
    y={stop.y + 6 * px}>{i + 1}</text
  >
  {#if stop.corner === now && stop.say}
    <text
      class="now-word"
      font-size={17 * px}
      text-anchor={stop.side < 0 ? 'end' : 'start'}
      x={stop.x + stop.side * 26 * px}
      y={stop.y + 6 * px}>{stop.say}</text
    >
  {/if}
{/each}

<style>
  .way {
    fill: none;
    stroke: var(--paint-light);
    stroke-dasharray: 3 6;
    vector-effect: non-scaling-stroke;
  }
  .ring,
  .full {
    stroke: var(--paint-light);
    stroke-width: 2;
    vector-effect: non-scaling-stroke;
    fill: var(--layout);
  }
  .full {
    fill: var(--paint-light);
  }
  .on {
    fill: var(--ink);
  }
  .off {
    fill: var(--paint-light);
  }
</style>
