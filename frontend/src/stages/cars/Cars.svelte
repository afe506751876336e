<script lang="ts">
  // The cars of the workshop, what waits in this browser for any of them, and the whole workshop as one file.
  import { api, type CarLine, type Standing } from '$lib/api/client';
  import { outbox } from '$lib/outbox.svelte';
  import { link } from '$lib/router.svelte';
  import Page from '$parts/frame/Page.svelte';
  import CarCard from './CarCard.svelte';
  import { FRAME } from '$parts/texts';
  import { CARS } from './texts';
  import Workshop from './Workshop.svelte';

  let cars = $state.raw<CarLine[] | null>(null);
  let away = $state(false);

  async function look(): Promise<void> {
    await outbox.handOverAll();
    try {
      [cars, away] = [await api.cars(), false];
      outbox.isBack();
    } catch {
      away = true;
      outbox.isAway();
    }
  }
  let stands = $state.raw<Readonly<Record<string, Standing>>>({});
  // One after the other, as each is reckoned: the list is there at once.
  $effect(() => {
    let over = false;
    const slugs = cars?.map((car) => car.slug) ?? [];
    void (async () => {
      for (const slug of slugs) {
        const found = over ? null : await api.standing(slug).catch(() => null); // a car that cannot be reckoned says so itself
        if (found && !over) stands = { ...stands, [slug]: found };
      }
    })();
    return () => (over = true);
  });
  $effect(() => {
    void look();
    return outbox.whileAway(() => void look());
  });
  const waits = (slug: string) => outbox.of(slug).length;
  const lost = $derived(
    [...new Set(outbox.rows.map((row) => row.slug))].filter((slug) => cars && !cars.some((c) => c.slug === slug)),
  );
</script>

<Page title={CARS.title}>
  {#if cars}
    {#if !cars.length}<p>{CARS.none}</p>{/if}
    <ul class="plain">
      {#each cars as car (car.slug)}<CarCard {car} waits={waits(car.slug)} stands={stands[car.slug]} />{/each}
    </ul>
    {#each lost as slug (slug)}
      <p class="no">{CARS.lost(slug, waits(slug))} <a href="/cars/{slug}/log" use:link>{CARS.look}</a></p>
    {/each}
  {:else if !away}<p role="status">{CARS.opening}</p>{/if}
  {#if away}<p role="alert">{CARS.away}</p>{/if}
  <p>
    <a class="button" data-main href="/begin" use:link>{CARS.begin}</a>
    <a class="button" href="/practice" use:link>{CARS.practise}</a>
    <a class="button" href="/shop" use:link>{FRAME.shop}</a>
  </p>
  <Workshop onbrought={() => void look()} />
</Page>

<style>
  ul {
    display: grid;
    gap: var(--gap-2);
    width: 100%;
  }
</style>
