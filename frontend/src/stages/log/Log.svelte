<script lang="ts">
  // The log of everything, newest first, with who and when; striking out, notes, and what else happened to the car.
  import { api, type LogLine } from '$lib/api/client';
  import { until } from '$lib/api/until';
  import type { Car } from '$lib/car.svelte';
  import AsFound from './AsFound.svelte';
  import Happened from './Happened.svelte';
  import LogEntry from './LogEntry.svelte';
  import Note from './Note.svelte';
  import { LOG } from './texts';
  import Waiting from './Waiting.svelte';

  type Props = { car: Car };
  let { car }: Props = $props();
  let lines = $state.raw<LogLine[]>([]);
  let whole = $state(false);
  const reaches = (rows: LogLine[]) => (rows.at(-1)?.entry.number ?? 1) === 1;

  // The log is the server's: it is asked again whenever the car has a new entry.
  $effect(() => {
    void car.view?.number;
    return until(
      () => api.log(car.slug),
      (found) => ([lines, whole] = [found, reaches(found)]),
    );
  });
  const strike = (id: string) => car.record({ kind: 'correction', version: 1, strikes: id, reason: '' }, LOG.strike);
  async function older(): Promise<void> {
    const more = await api.log(car.slug, lines.at(-1)?.entry.number);
    [lines, whole] = [[...lines, ...more], reaches(more)];
  }
  const correctionOf = (line: LogLine) => lines.find((l) => l.entry.number === line.struck_by);
</script>

<main>
  <section class="card" aria-label={LOG.title}>
    <h1>{LOG.title} <span class="soft">{LOG.soft}</span></h1>
    {#if car.waiting.length}<Waiting {car} />{/if}
    {#each car.view?.notices ?? [] as notice, i (i)}<p role="alert" class="no">{notice}</p>{/each}
    <ol class="plain">
      {#each lines as line (line.entry.id)}<LogEntry {line} correction={correctionOf(line)} onstrike={strike} />{/each}
    </ol>
    {#if !whole && lines.length}<button class="button" type="button" onclick={older}>{LOG.older}</button>{/if}
  </section>
  <div class="side">
    <AsFound {car} />
    <Happened {car} />
    <Note {car} />
    <div class="card">
      <p class="soft">{LOG.files}</p>
      <a class="button" href="/api/cars/{car.slug}/plan.json" download="{car.slug}.plan.json">plan.json</a>
      <a class="button" href="/api/cars/{car.slug}/logbook.json" download="{car.slug}.logbook.json">logbook.json</a>
    </div>
  </div>
</main>

<style>
  main {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 360px;
    gap: var(--gap-3);
    padding: var(--gap-3);
    align-items: start;
  }
  h1 {
    font-size: 1.125rem;
  }
  h1 span {
    font-weight: 400;
  }
  .side {
    display: grid;
    gap: var(--gap-3);
  }
  @media (max-width: 1000px) {
    main {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
