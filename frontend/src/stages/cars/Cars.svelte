<script lang="ts">
  import { api } from '$lib/api/client';
  import { link } from '$lib/router.svelte';
  import { CARS } from './texts';

  const cars = api.cars();
</script>

<main>
  <h1>{CARS.title}</h1>
  {#await cars}
    <p role="status">{CARS.opening}</p>
  {:then found}
    {#if !found.length}<p>{CARS.none}</p>{/if}
    <ul>
      {#each found as car (car.slug)}
        <li><a class="card" href="/cars/{car.slug}" use:link><b>{car.name}</b><span>{car.about}</span><small>{CARS.entries(car.entries)}</small></a></li>
      {/each}
    </ul>
  {:catch}
    <p role="alert">{CARS.away}</p>
  {/await}
  <a class="button" data-main href="/begin" use:link>{CARS.begin}</a>
</main>

<style>
  main { padding: var(--gap-4); max-width: 900px; width: 100%; margin: 0 auto; display: grid; gap: var(--gap-3); justify-items: start; align-content: start; }
  h1 { font-size: var(--type-head); }
  ul { list-style: none; margin: 0; padding: 0; display: grid; gap: var(--gap-2); width: 100%; }
  li a { display: grid; grid-template-columns: 1fr auto; color: var(--ink); text-decoration: none; border-left: 10px solid var(--layout); gap: 0 var(--gap-3); }
  li a:hover { border-left-color: var(--paint); }
  b { font-size: 1.25rem; }
  span { grid-row: 2; color: var(--ink-soft); }
  small { color: var(--ink-soft); align-self: center; grid-row: 1 / 3; grid-column: 2; }
</style>
