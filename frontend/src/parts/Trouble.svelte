<script lang="ts">
  // A car that cannot be reckoned: since which line, and what can be done. Its log and its plan open as ever.
  import type { CarView } from '$lib/api/client';
  import type { Car } from '$lib/car.svelte';
  import { link } from '$lib/router.svelte';
  import { TROUBLE } from './texts';

  type Props = { car: Car; trouble: NonNullable<CarView['trouble']> };
  let { car, trouble }: Props = $props();
</script>

<main class="card">
  <h1>{TROUBLE.head}</h1>
  <p role="alert">{trouble.sentence}</p>
  <p>
    {#if trouble.strikable}<button
        type="button"
        class="button"
        data-main
        onclick={() =>
          car.record(
            { kind: 'correction', version: 1, strikes: trouble.id, reason: '' },
            TROUBLE.strike(trouble.number),
          )}>{TROUBLE.strike(trouble.number)}</button
      >{/if}
    <a class="button" href="/cars/{car.slug}/plan/figures" use:link>{TROUBLE.plan}</a>
    <a class="button" href="/cars/{car.slug}/log" use:link>{TROUBLE.log}</a>
  </p>
</main>

<style>
  main {
    margin: var(--gap-4);
    align-self: start;
    display: grid;
    gap: var(--gap-3);
    border-left: 10px solid var(--rust);
  }
  h1 {
    font-size: var(--type-head);
  }
  p {
    max-width: 62em;
  }
</style>
