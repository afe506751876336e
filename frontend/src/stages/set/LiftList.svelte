<script lang="ts">
  // One list a lift: the stops of a walk round the car, what to turn at each, what the car would then read, and what to read again.
  import type { CarView, Corner } from '$lib/api/client';
  import LiftStop from './LiftStop.svelte';
  import LiftThen from './LiftThen.svelte';
  import type { LiftLine } from './lift';

  type Props = {
    lift: NonNullable<CarView['lift']>;
    stops: { corner: Corner; lines: LiftLine[] }[];
    now: string | undefined;
    onpick: (corner: Corner, adjuster: string) => void;
  };
  let { lift, stops, now, onpick }: Props = $props();
</script>

<section aria-label={lift.sentence}>
  <h2>{lift.sentence}</h2>
  <p class="soft">{lift.reason}</p>
  {#each lift.cautions as caution, i (i)}<p class="caution">{caution}</p>{/each}
  <ol>
    {#each stops as stop, i (stop.corner)}
      <LiftStop {...stop} number={i + 1} {now} {onpick} />
    {/each}
  </ol>
  <LiftThen expected={lift.expected} afterwards={lift.afterwards} />
</section>

<style>
  h2 {
    font-size: 1.25rem;
  }
  ol {
    list-style: none;
    margin: 6px 0 0;
    padding: 0;
  }
</style>
