<script lang="ts">
  // Stage Stance: the car drawn as it stands, what brings it to its heights and loads, its stands, springs and pads; and the tape for all of it.
  import { api, type Corner, type StanceView } from '$lib/api/client';
  import { until } from '$lib/api/until';
  import type { Car } from '$lib/car.svelte';
  import { CORNER_WORDS } from '$lib/marks';
  import type { Waiting } from '$lib/outbox.svelte';
  import { router } from '$lib/router.svelte';
  import { Desk, type Work } from '$parts/desk.svelte';
  import { DESK } from '$parts/texts';
  import Tape from '$parts/Tape.svelte';
  import Corners from './Corners.svelte';
  import OnStands from './OnStands.svelte';
  import Perches from './Perches.svelte';
  import Springs from './Springs.svelte';
  import StanceDrawing from './StanceDrawing.svelte';
  import State from './State.svelte';
  import Sums from './Sums.svelte';
  import { STANCE } from './texts';

  type Tab = keyof typeof STANCE.tabs;
  type Props = { car: Car };
  let { car }: Props = $props();
  const view = $derived(car.view!);
  const tab = $derived<Tab>(router.parts[3] && router.parts[3] in STANCE.tabs ? (router.parts[3] as Tab) : 'floor');
  let found = $state.raw<StanceView | null>(null);
  let refusal = $state('');
  let springAt = $state<Corner>('LF');
  $effect(() => {
    void view.number; // whatever was read or turned may have moved it
    return until(
      () => api.stance(car.slug),
      (s) => ([found, refusal] = [s, '']),
      (why) => (refusal = why),
    );
  });

  const work = $derived<Work>({
    base: `stance/${tab === 'stands' ? 'stands' : 'floor'}`,
    allRound: true,
    asks: (v) => (tab === 'stands' ? v.stand_round : v.floor_round),
    adjusters: (v) => Object.values(v.corners).flatMap((c) => c.adjusters.filter((a) => a.kind === 'perch')),
    told: (v) =>
      (found?.perches ?? []).map((p) => {
        const own = v.corners[p.corner].adjusters.find((a) => a.id === p.adjuster);
        return {
          adjuster: p.adjuster,
          name: own?.name ?? '',
          amount: 1,
          say: p.amount,
          caution: p.caution,
          corner: p.corner,
        };
      }),
  });
  // svelte-ignore state_referenced_locally (a new car makes a new page)
  const desk = new Desk(
    car,
    () => router.parts.slice(4),
    () => work,
  );
  const ask = $derived(desk.ask);
  const typed = $derived(desk.preview?.said ?? desk.typed);
  const onTape = $derived(tab === 'floor' || tab === 'stands');
  const quantity = $derived(desk.turning || !onTape ? '' : (ask?.quantity ?? ''));
  const mine = $derived(
    desk.asks
      .filter((a) => a.quantity === ask?.quantity)
      .map((a) => ({
        name: CORNER_WORDS[a.corner],
        say: a.repeats ? `${a.latest}${a.repeats > 1 ? ` ×${a.repeats}` : ''}${a.wanted ? ' ?' : ''}` : '…',
        now: a.corner === ask?.corner,
      })),
  );
  const told = $derived(desk.turning ? desk.amountTold : undefined);
  const caution = $derived(
    desk.turning
      ? desk.preview?.caution || told?.caution || ''
      : tab === 'stands'
        ? ''
        : ask?.quantity === 'height' && desk.preview?.large
          ? STANCE.jacking
          : '',
  );
  const hooks = $derived([
    { key: 'Enter', does: STANCE.keys[desk.turning ? 'turn' : 'next'], act: () => desk.enter() },
    { key: '↓ ↑', does: STANCE.keys[desk.turning ? 'other' : 'skip'], act: () => desk.step(1) },
    { key: '⌫', does: DESK.strike, act: () => desk.strike() },
    ...(desk.turning
      ? [{ key: 'M', does: STANCE.keys.read, act: () => desk.startMeasuring() }]
      : [
          ...(tab === 'floor' && !view.condition.settled
            ? [{ key: 'S', does: DESK.settled, act: () => desk.settled() }]
            : []),
          ...(tab === 'floor' ? [{ key: 'T', does: STANCE.keys.perch, act: () => desk.startTurning() }] : []),
          { key: 'U', does: STANCE.keys.tool(desk.tool.name.toLowerCase()), act: () => desk.nextTool() },
        ]),
  ]);
  const refused = $derived({
    rows: car.refused,
    retype: (row: Waiting) => desk.retype(row),
    again: (row: Waiting) => car.again(row),
    discard: (row: Waiting) => car.discard(row.entry.id),
  });
  const show = (to: Tab) => (desk.clear(), router.go(`/cars/${car.slug}/stance/${to}`));
</script>

<main data-tape={onTape || undefined}>
  <div class="bar">
    <div role="group" aria-label={STANCE.title}>
      {#each Object.entries(STANCE.tabs) as [name, word] (name)}<button
          type="button"
          class="button"
          aria-pressed={tab === name}
          onclick={() => show(name as Tab)}>{word}</button
        >{/each}
    </div>
    <div class="says" role="status">
      {#if refusal}<p class="no">{refusal}</p>
      {:else if found?.provisional.length && tab === 'floor'}<p class="no">
          <b>{STANCE.provisional}:</b>
          {found.provisional.join('; ')}.
        </p>
      {:else if found?.notes.length && tab !== 'stands' && tab !== 'sums'}<p>{found.notes[0]}</p>{/if}
    </div>
  </div>
  <StanceDrawing
    {view}
    stance={found}
    corner={tab === 'springs' ? springAt : desk.corner}
    onStands={tab === 'stands'}
    {quantity}
    {typed}
  />
  <div class="panel">
    {#if found}
      {#if tab === 'floor'}
        <Perches {car} {view} stance={found} onturn={(p) => desk.openTurn(p.corner, p.adjuster)} />
        <Corners {view} stance={found} onpick={(c) => desk.open(`${c}/height`)} />
      {:else if tab === 'stands'}<OnStands stance={found} onpick={(c) => desk.open(`${c}/hub`)} />
      {:else if tab === 'springs'}<Springs stance={found} corner={springAt} onpick={(c) => (springAt = c)} />
      {:else if tab === 'state'}<State {car} {view} stance={found} />
      {:else}<Sums {car} stance={found} />{/if}
    {:else if !refusal}<section class="card"><p role="status">…</p></section>{/if}
  </div>
  {#if onTape && desk.turning}
    <div class="foot">
      <Tape
        title={DESK.turnTitle(CORNER_WORDS[desk.corner], desk.adjuster?.name ?? '')}
        how={desk.adjuster ? `${desk.adjuster.say_how}; ${desk.adjuster.say_room}` : STANCE.noTurn}
        {caution}
        label={STANCE.turned}
        value={desk.typed}
        placeholder={told?.say ?? '1t2f up'}
        means={desk.preview ? `${desk.preview.said} · ${desk.preview.means}` : ''}
        refusal={desk.refusal}
        note={desk.note || (told ? STANCE.asTold : STANCE.noTurn)}
        {hooks}
        oninput={(t) => desk.type(t)}
        onenter={(again) => desk.enter(again)}
        onstep={(by) => desk.step(by)}
        onkey={(k) => desk.key(k)}
        {refused}
      />
    </div>
  {:else if onTape && ask}
    <div class="foot">
      <Tape
        title={ask.title}
        how={ask.how}
        {caution}
        label={ask.title}
        value={desk.typed}
        means={desk.preview ? `${desk.preview.said} · ${desk.preview.means}` : ''}
        large={desk.preview?.large ?? ''}
        state={desk.preview?.state ?? null}
        refusal={desk.refusal}
        note={desk.note || (tab === 'floor' && !view.condition.settled ? STANCE.settleFirst : '')}
        {hooks}
        readings={mine}
        oninput={(t) => desk.type(t)}
        onenter={(again) => desk.enter(again)}
        onstep={(by) => desk.step(by)}
        onkey={(k) => desk.key(k)}
        {refused}
      />
    </div>
  {/if}
</main>

<style>
  main {
    display: grid;
    grid-template-columns: minmax(0, 45fr) minmax(0, 55fr);
    grid-template-rows: auto minmax(0, 1fr);
    gap: var(--gap-3);
    padding: var(--gap-3);
    height: calc(100vh - 64px);
    min-height: 660px;
  }
  main[data-tape] {
    grid-template-rows: auto minmax(0, 1fr) auto;
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
    max-height: 48px;
    overflow: auto;
  }
  .no {
    color: var(--rust);
  }
  .panel {
    display: grid;
    gap: 8px;
    align-content: start;
    overflow: auto;
    min-height: 0;
    min-width: 0;
  }
  .foot {
    grid-column: 1 / -1;
  }
  @media (max-width: 1000px) {
    main,
    main[data-tape] {
      grid-template-columns: minmax(0, 1fr);
      grid-template-rows: auto;
      height: auto;
    }
    .bar {
      flex-wrap: wrap;
    }
    .bar [role='group'] {
      flex-wrap: wrap;
    }
    .panel {
      overflow: visible;
    }
  }
</style>
