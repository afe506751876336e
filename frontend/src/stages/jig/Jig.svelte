<script lang="ts">
  // Stage Jig: the frame drawn as surveyed, what to measure, what each error will do, and the record of what was done to it.
  import { untrack } from 'svelte';
  import type { Car } from '$lib/car.svelte';
  import type { Waiting } from '$lib/outbox.svelte';
  import { link } from '$lib/router.svelte';
  import { refusedKeys } from '$parts/desk.svelte';
  import Tape from '$parts/Tape.svelte';
  import JigDrawing from './JigDrawing.svelte';
  import Measure from './Measure.svelte';
  import Pickups from './Pickups.svelte';
  import Readings from './Readings.svelte';
  import State from './State.svelte';
  import Weld from './Weld.svelte';
  import { Survey, type Tab } from './survey.svelte';
  import { JIG } from './texts';

  type Props = { car: Car };
  let { car }: Props = $props();
  const survey = new Survey(untrack(() => car));
  $effect(() => {
    void car.view?.number; // whatever was written down may change the frame
    return untrack(() => survey.refresh());
  });
  const view = $derived(survey.view);
  const inches = $derived(car.view!.plan.units.system !== 'mm');
  const hooks = $derived([
    { key: '↑ ↓', does: JIG.next },
    { key: 'U', does: JIG.other, act: () => other() },
    ...(car.recent.length ? [{ key: '⌫', does: JIG.strike, act: () => car.strike(JIG.strikeOut) }] : []),
  ]);
  function other(): void {
    const at = survey.tools.findIndex((t) => t.id === survey.toolNow?.id);
    survey.tool = survey.tools[(at + 1) % survey.tools.length]?.id ?? '';
  }
  const refused = $derived({
    rows: car.refused,
    retype: (row: Waiting) => survey.retype(row),
    again: (row: Waiting) => car.again(row),
    discard: (row: Waiting) => car.discard(row.entry.id),
  });
  function onkey(key: string): boolean {
    if (survey.text) return false;
    if (key === 'u' || key === 'U') return (other(), true);
    if (key === 'Backspace' && car.recent.length) return (car.strike(JIG.strikeOut), true);
    const act = refusedKeys(car, car.refused[0], (row) => survey.retype(row))[key.toLowerCase()];
    act?.();
    return act !== undefined;
  }
</script>

<main>
  <div class="bar">
    <div role="group" aria-label={JIG.title}>
      {#each Object.entries(JIG.tabs) as [tab, name] (tab)}<button
          type="button"
          class="button"
          aria-pressed={survey.tab === tab}
          onclick={() => (survey.tab = tab as Tab)}>{name}</button
        >{/each}
    </div>
    {#if view}
      <div class="says" role="status">
        {#if view.wrong.length}<p class="no"><b>{JIG.wrongHead}.</b> {view.wrong.join(' ')}</p>
        {:else if view.loose.length}<p>
            <b>{JIG.looseHead}.</b>
            {view.loose[0]}
            {view.loose.length > 1 ? `+ ${view.loose.length - 1}` : ''}
          </p>
        {:else if view.readings.some((r) => r.counts)}<p>
            {JIG.sound}
            {view.since ? `${JIG.since(view.since)}.` : ''}
            {view.moved_first}
          </p>
        {:else}<p>{JIG.noReadings}</p>{/if}
        {#if view.notes.length && !view.wrong.length && !view.since}<p class="soft">{view.notes[0]}</p>{/if}
      </div>
    {/if}
  </div>
  {#if survey.refusal && !view}
    <section class="card"><p role="alert">{survey.refusal}</p></section>
  {:else if view && !view.points.length}
    <section class="card">
      <p>{JIG.none}</p>
      <a class="button" data-main href="/cars/{car.slug}/plan" use:link>{JIG.toPlan}</a>
    </section>
  {:else if view}
    <JigDrawing {survey} {view} />
    {#if survey.tab === 'measure'}<Measure {survey} {view} {inches} />
    {:else if survey.tab === 'pickups'}<Pickups {survey} {view} />
    {:else if survey.tab === 'readings'}<Readings {survey} {view} />
    {:else if survey.tab === 'weld'}<Weld {survey} {view} />
    {:else}<State {survey} {view} />{/if}
    {#if survey.tab === 'measure' || survey.tab === 'readings'}
      <div class="foot">
        <Tape
          title={survey.title}
          how={survey.points.length ? JIG.reads(survey.toolNow?.name ?? '', JIG.whats[survey.kind]) : JIG.free}
          label={JIG.record}
          value={survey.text}
          placeholder={survey.kind === 'compare' ? JIG.bound : survey.kind === 'in_line' ? JIG.play : ''}
          means={survey.means}
          refusal={survey.wrong}
          note={survey.ready ? '' : JIG.pick}
          {hooks}
          {refused}
          oninput={(text) => void survey.type(text)}
          onenter={() => survey.enter()}
          onstep={(by) => survey.step(by)}
          {onkey}
        />
      </div>
    {/if}
  {:else}<section class="card" aria-busy="true"><p role="status">…</p></section>{/if}
</main>

<style>
  main {
    display: grid;
    grid-template-columns: minmax(0, 54fr) minmax(0, 46fr);
    grid-template-rows: auto minmax(280px, 1fr) auto;
    gap: var(--gap-3);
    padding: var(--gap-3);
    height: calc(100vh - 64px);
    min-height: 660px;
  }
  .bar {
    grid-column: 1 / -1;
    display: flex;
    gap: var(--gap-3);
    align-items: center;
    min-width: 0;
  }
  .bar [role='group'] {
    display: flex;
    flex: none;
  }
  .bar .button {
    border-radius: 0;
    margin-left: -1px;
    font-weight: 400;
    padding: 0 12px;
  }
  .bar [aria-pressed='true'] {
    background: var(--layout);
    color: #fff;
    font-weight: 700;
  }
  .says {
    min-width: 0;
    line-height: 1.2;
    font-size: 0.9rem;
    max-height: 58px;
    overflow: auto;
  }
  .no {
    color: var(--rust);
  }
  .foot {
    grid-column: 1 / -1;
  }
  .card {
    grid-column: 1 / -1;
    align-self: start;
    display: grid;
    gap: var(--gap-3);
    justify-items: start;
  }
  @media (max-width: 1000px) {
    main {
      grid-template-columns: minmax(0, 1fr);
      grid-template-rows: auto 360px;
      height: auto;
    }
    .bar {
      flex-wrap: wrap;
    }
    .bar [role='group'] {
      flex-wrap: wrap;
    }
  }
</style>
