<script lang="ts">
  // The log of everything, newest first, with who and when; striking out, notes, and what else happened to the car.
  import { api, type Corner, type LogLine } from '$lib/api/client';
  import { until } from '$lib/api/until';
  import type { Car } from '$lib/car.svelte';
  import { CORNER_WORDS, CORNERS } from '$lib/marks';
  import FigureField from '$parts/FigureField.svelte';
  import { REFUSED } from '$parts/texts';
  import { LOG } from './texts';

  type Props = { car: Car };
  let { car }: Props = $props();
  type Happening = keyof typeof LOG.what;

  let lines = $state.raw<LogLine[]>([]);
  let what = $state<Happening>('settled');
  let corner = $state<Corner | ''>('');
  let words = $state('');
  let by = $state<number | null>(null);
  let station = $state<number | null>(null);
  let offset = $state<number | null>(null);
  let note = $state('');
  let whole = $state(false);

  // The log is the server's: it is asked again whenever the car has a new entry.
  $effect(() => {
    void car.view?.number;
    return until(
      () => api.log(car.slug),
      (found) => ([lines, whole] = [found, (found.at(-1)?.entry.number ?? 1) === 1]),
    );
  });

  const strike = (id: string) => car.record({ kind: 'correction', version: 1, strikes: id, reason: '' }, LOG.strike);
  async function older(): Promise<void> {
    const more = await api.log(car.slug, lines.at(-1)?.entry.number);
    [lines, whole] = [[...lines, ...more], (more.at(-1)?.entry.number ?? 1) === 1];
  }
  // What is written leaves its field at once; where it is not taken it stands in the list above, with its words.
  function happened(event: SubmitEvent): void {
    event.preventDefault();
    const [figure, at] = [by, station === null || offset === null ? null : ([station, offset] as [number, number])];
    const told = figure !== null && ((what === 'tyre' && corner) || (what === 'load' && at));
    car.record(
      {
        kind: 'happened',
        version: 1,
        what,
        corner: corner || null,
        words,
        points: [],
        by: told ? figure : null,
        place: told && what === 'load' ? at : null,
      },
      words || LOG.what[what],
    );
    [words, by, station, offset] = ['', null, null, null];
  }
  function keepNote(event: SubmitEvent): void {
    event.preventDefault();
    if (!note.trim()) return;
    car.record({ kind: 'note', version: 1, words: note.trim(), corner: null }, `${LOG.note}: ${note.trim()}`);
    note = '';
  }
  const year = new Date().getFullYear();
  const when = (at: string) => {
    const date = new Date(at);
    return date.toLocaleString('en-GB', {
      day: '2-digit',
      month: 'short',
      ...(date.getFullYear() === year ? {} : { year: 'numeric' as const }),
      hour: '2-digit',
      minute: '2-digit',
    });
  };
  const correctionOf = (line: LogLine) => lines.find((l) => l.entry.number === line.struck_by);
</script>

<main>
  <section class="card log" aria-label={LOG.title}>
    <h1>{LOG.title} <span class="soft">{LOG.soft}</span></h1>
    {#if car.waiting.length}
      <h2>{LOG.waiting}</h2>
      <ul>
        {#each car.waiting as row (row.entry.id)}
          <li data-refused={row.refusal ? '' : undefined}>
            <span>{row.title}</span>{#if row.refusal}<b>{LOG.notTaken}: {row.refusal.sentence}</b>
              <small>{row.refusal.status >= 500 ? LOG.fault : LOG.retype}</small>
              <button class="button" type="button" onclick={() => car.again(row)}
                >{row.refusal.code === 'unusual_value' ? REFUSED.keep : REFUSED.again}</button
              >
              <button class="button" type="button" onclick={() => car.discard(row.entry.id)}>{LOG.discard}</button>{/if}
          </li>
        {/each}
      </ul>
    {/if}
    {#each car.view?.notices ?? [] as notice (notice)}<p role="alert" class="alert">{notice}</p>{/each}
    <ol>
      {#each lines as line (line.entry.id)}
        {@const by = correctionOf(line)}
        <li data-struck={line.struck_by ?? undefined} data-kind={line.kind}>
          <span class="fig n">{line.entry.number}</span>
          <span class="say"
            >{line.sentence}{#if line.struck_by}<small>{LOG.struck(line.struck_by)}</small>{/if}</span
          >
          <small>{when(line.entry.at)}<br />{line.entry.who || LOG.nobody}</small>
          {#if line.strikable}
            <button
              class="button"
              type="button"
              onclick={() => strike(line.entry.id)}
              aria-label="{line.kind === 'correction' ? LOG.back : LOG.strike} {line.entry.number}"
              >{line.kind === 'correction' ? LOG.back : LOG.strike}</button
            >
          {:else if by?.strikable}
            <button
              class="button"
              type="button"
              onclick={() => strike(by.entry.id)}
              aria-label="{LOG.back} {line.entry.number}">{LOG.back}</button
            >
          {/if}
        </li>
      {/each}
    </ol>
    {#if !whole && lines.length}<button class="button" type="button" onclick={older}>{LOG.older}</button>{/if}
  </section>
  <div class="side">
    <form class="card" onsubmit={happened}>
      <h2>{LOG.happened}</h2>
      <fieldset>
        <legend class="hidden">{LOG.happened}</legend>
        {#each Object.entries(LOG.what) as [value, name] (value)}
          <label><input type="radio" name="what" {value} bind:group={what} />{name}</label>
        {/each}
      </fieldset>
      {#if ['tyre', 'weld', 'knock'].includes(what)}
        <label class="row"
          >{LOG.where}<select bind:value={corner}
            ><option value="">{LOG.all}</option>{#each CORNERS as c (c)}<option value={c}>{CORNER_WORDS[c]}</option
              >{/each}</select
          ></label
        >
      {/if}
      {#if what === 'tyre' && corner}<FigureField
          label={LOG.larger}
          value={by}
          kind="length"
          units={car.view!.plan.units}
          onchange={(v) => (by = v)}
        />{/if}
      {#if what === 'load'}<div class="three">
          <FigureField
            label={LOG.mass}
            value={by}
            kind="mass"
            units={car.view!.plan.units}
            onchange={(v) => (by = v)}
          />
          <FigureField
            label={LOG.station}
            value={station}
            kind="length"
            units={car.view!.plan.units}
            onchange={(v) => (station = v)}
          />
          <FigureField
            label={LOG.offset}
            value={offset}
            kind="length"
            units={car.view!.plan.units}
            onchange={(v) => (offset = v)}
          />
        </div>{/if}
      {#if what === 'tyre' || what === 'load'}<p class="soft">{LOG.figure}</p>{/if}
      <label class="row">{LOG.words}<input bind:value={words} maxlength="200" /></label>
      {#if what === 'weld'}<p class="caution">{LOG.weld}</p>{/if}
      {#if what === 'bar_off'}<p class="caution">{LOG.lift}</p>{/if}
      <button class="button" data-main>{LOG.record}</button>
    </form>
    <form class="card" onsubmit={keepNote}>
      <label class="row">{LOG.note}<textarea bind:value={note} rows="2" maxlength="2000"></textarea></label>
      <button class="button">{LOG.recordNote}</button>
    </form>
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
  .three {
    display: grid;
    grid-template-columns: repeat(3, minmax(0, 1fr));
    gap: 8px;
    align-items: end;
  }
  h2 {
    font-size: 1rem;
    margin-bottom: 6px;
  }
  li .button {
    font-weight: 400;
    border-color: var(--edge);
  }
  ol,
  ul {
    list-style: none;
    margin: 8px 0;
    padding: 0;
  }
  li {
    border-top: 1px solid var(--edge);
    padding: 4px 0;
    min-height: 52px;
    display: grid;
    grid-template-columns: 44px minmax(0, 1fr) 130px 112px;
    gap: 10px;
    align-items: center;
  }
  ul li {
    display: block;
  }
  .n {
    color: var(--ink-soft);
    text-align: right;
  }
  .say {
    font-size: 1.0625rem;
  }
  .say small {
    display: block;
    text-decoration: none;
  }
  [data-struck] .say {
    text-decoration: line-through;
    color: var(--ink-soft);
  }
  [data-struck] small {
    display: inline-block;
  }
  small {
    color: var(--ink-soft);
    font-size: 0.8125rem;
  }
  [data-kind='turned'] .n {
    box-shadow: -6px 0 var(--paint);
  }
  [data-kind='plan'] .n {
    box-shadow: -6px 0 var(--layout);
  }
  .alert,
  [data-refused] b {
    color: var(--rust);
    font-weight: 700;
  }
  .side {
    display: grid;
    gap: var(--gap-3);
  }
  form {
    display: grid;
    gap: var(--gap-2);
  }
  fieldset {
    border: 0;
    padding: 0;
    margin: 0;
    display: grid;
  }
  fieldset label {
    min-height: 34px;
    display: flex;
    gap: 10px;
    align-items: center;
  }
  fieldset input {
    width: 20px;
    height: 20px;
    accent-color: var(--layout);
  }
  .row {
    display: grid;
    gap: 2px;
    color: var(--ink-soft);
    font-size: var(--type-small);
  }
  .row input,
  .row select,
  .row textarea {
    min-height: var(--touch);
    border: 1px solid var(--steel-dark);
    border-radius: var(--round);
    background: #fff;
    padding: 4px 8px;
    color: var(--ink);
    font-size: 1rem;
  }
  .caution {
    border-left: 6px solid var(--rust);
    padding-left: 8px;
  }
  @media (max-width: 1000px) {
    main {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
