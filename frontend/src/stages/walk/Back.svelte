<script lang="ts">
  // Whoever comes back after a while is told since when, what has happened to the car meanwhile, and what to look at first.
  import { untrack } from 'svelte';
  import { api, type Standing } from '$lib/api/client';
  import type { Car } from '$lib/car.svelte';
  import { link } from '$lib/router.svelte';
  import { WALK } from './texts';

  type Props = { car: Car };
  let { car }: Props = $props();
  const LONG_MS = 12 * 3600 * 1000; // a night
  const seen = untrack(() => car.seen);
  let stands = $state.raw<Standing | null>(null);
  const away = seen && Date.now() - seen.at > LONG_MS;
  $effect(() => {
    if (away)
      void api.standing(car.slug, seen.number).then(
        (found) => (stands = found),
        () => {},
      );
  });
  const days = $derived(stands && seen ? Math.round((Date.now() - seen.at) / (24 * 3600 * 1000)) : 0);
</script>

{#if stands && seen && car.seen}
  <aside aria-label={WALK.back.label}>
    <p>
      <b>{WALK.back.away(days)}</b>
      {stands.since.length ? WALK.back.since(stands.since) : WALK.back.nothing}
      <a href="/cars/{car.slug}/log" use:link>{WALK.back.log}</a>
    </p>
    <p>{WALK.back.first}</p>
    <button type="button" class="button" onclick={() => (car.seen = null)}>{WALK.back.go}</button>
  </aside>
{/if}

<style>
  aside {
    border-left: 4px solid var(--paint);
    padding: 2px 0 2px 10px;
    display: grid;
    gap: 4px;
    justify-items: start;
  }
</style>
