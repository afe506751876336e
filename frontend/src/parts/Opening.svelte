<script lang="ts">
  // A car that is on its way: that its logbook is being opened, how far that has come where it is a long one, or that nobody answers.
  import { api } from '$lib/api/client';
  import type { Car } from '$lib/car.svelte';
  import { FRAME } from './texts';

  type Props = { car: Car };
  let { car }: Props = $props();

  const LOOK_MS = 500;
  let share = $state(1);
  $effect(() => {
    const { slug } = car;
    const timer = setInterval(
      () =>
        void api.opened(slug).then(
          (found) => (share = found.share),
          () => {}, // whoever waits for the car is told that nobody answers
        ),
      LOOK_MS,
    );
    return () => clearInterval(timer);
  });
</script>

<main class="card" aria-busy="true">
  <h1>{FRAME.opening}</h1>
  <p role="status">{car.away ? FRAME.logbookAway : ''}</p>
  {#if share < 1 && !car.away}<progress value={share} aria-label={FRAME.opening}></progress>
    <p class="soft">{FRAME.opened(share)}</p>{/if}
</main>

<style>
  main {
    margin: var(--gap-4);
    align-self: start;
  }
  progress {
    width: min(340px, 100%);
    height: 12px;
    accent-color: var(--layout);
  }
</style>
