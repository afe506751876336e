<script lang="ts">
  // The cars of the workshop, what waits in this browser for any of them, and the whole workshop as one file.
  import { api, type CarLine } from '$lib/api/client';
  import { outbox } from '$lib/outbox.svelte';
  import { link } from '$lib/router.svelte';
  import { CARS } from './texts';

  let cars = $state.raw<CarLine[] | null>(null);
  let refusal = $state('');
  let brought = $state.raw<string[]>([]);

  async function look(): Promise<void> {
    await outbox.handOverAll();
    try {
      [cars, refusal] = [await api.cars(), ''];
      outbox.isBack();
    } catch (error) {
      refusal = (error as Error).message;
      outbox.isAway();
    }
  }
  $effect(() => {
    void look();
    return outbox.whileAway(() => void look());
  });
  const waits = (slug: string) => outbox.of(slug).length;
  const lost = $derived(
    [...new Set(outbox.rows.map((row) => row.slug))].filter((slug) => cars && !cars.some((c) => c.slug === slug)),
  );

  async function bringIn(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
    const field = event.currentTarget;
    const file = field.files?.[0];
    if (!file) return;
    brought = [CARS.bringing(file.name)];
    try {
      brought = (await api.bringIn(await file.text())).map((car) => CARS.brought(car));
    } catch (error) {
      brought = [CARS.notBrought(file.name, (error as Error).message)];
    }
    field.value = '';
    void look();
  }
</script>

<main>
  <h1>{CARS.title}</h1>
  {#if cars}
    {#if !cars.length}<p>{CARS.none}</p>{/if}
    <ul>
      {#each cars as car (car.slug)}
        <li>
          <a class="card" href="/cars/{car.slug}" use:link
            ><b>{car.name}</b><span>{car.about}</span><small
              >{CARS.entries(car.entries)}{#if waits(car.slug)}<br /><b class="waits">{CARS.waits(waits(car.slug))}</b
                >{/if}</small
            ></a
          >
        </li>
      {/each}
    </ul>
    {#each lost as slug (slug)}<p class="waits">
        {CARS.lost(slug, waits(slug))} <a href="/cars/{slug}/log" use:link>{CARS.look}</a>
      </p>{/each}
  {:else if !refusal}
    <p role="status">{CARS.opening}</p>
  {/if}
  {#if refusal}<p role="alert">{CARS.away}</p>{/if}
  <a class="button" data-main href="/begin" use:link>{CARS.begin}</a>
  <section class="card" aria-label={CARS.whole}>
    <h2>{CARS.whole}</h2>
    <p>{CARS.wholeSoft}</p>
    <div>
      <a class="button" href="/api/workshop.json" download>{CARS.save}</a>
      <label class="button"
        >{CARS.bring}<input
          class="hidden"
          type="file"
          accept=".json,application/json"
          onchange={(e) => void bringIn(e)}
        /></label
      >
    </div>
    {#each brought as line (line)}<p role="status">{line}</p>{/each}
  </section>
</main>

<style>
  main {
    padding: var(--gap-4);
    max-width: 900px;
    width: 100%;
    margin: 0 auto;
    display: grid;
    gap: var(--gap-3);
    justify-items: start;
    align-content: start;
  }
  h1 {
    font-size: var(--type-head);
  }
  h2 {
    font-size: 1rem;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    gap: var(--gap-2);
    width: 100%;
  }
  li a {
    display: grid;
    grid-template-columns: 1fr auto;
    color: var(--ink);
    text-decoration: none;
    border-left: 10px solid var(--layout);
    gap: 0 var(--gap-3);
  }
  li a:hover {
    border-left-color: var(--paint);
  }
  li a > b {
    font-size: 1.25rem;
  }
  span {
    grid-row: 2;
    color: var(--ink-soft);
  }
  small {
    color: var(--ink-soft);
    align-self: center;
    grid-row: 1 / 3;
    grid-column: 2;
    text-align: right;
  }
  section {
    width: 100%;
    display: grid;
    gap: var(--gap-2);
  }
  section p {
    color: var(--ink-soft);
  }
  .waits {
    color: var(--rust);
  }
  label:focus-within {
    outline: 3px solid var(--layout);
    outline-offset: 2px;
  }
</style>
