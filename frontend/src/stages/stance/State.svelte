<script lang="ts">
  // Pads, the state the car is in, its tyres and bar links, and its ride height by any feature.
  import { untrack } from 'svelte';
  import type { CarView, Corner, StanceView, What } from '$lib/api/client';
  import type { Car } from '$lib/car.svelte';
  import { CORNER_WORDS, CORNERS } from '$lib/marks';
  import { router } from '$lib/router.svelte';
  import Forms from '$parts/Forms.svelte';
  import { STANCE, STATE } from './texts';

  type Props = { car: Car; view: CarView; stance: StanceView };
  let { car, view, stance }: Props = $props();
  let refusal = $state('');
  const said = untrack(() => stance.state);
  let aboard = $state<keyof typeof STATE.aboards>(said?.aboard ?? 'driver');
  let fuel = $state(said?.fuel ?? '');
  let missing = $state((said?.missing ?? []).join('\n'));
  let pressure = $state(said?.at_pressure ?? true);
  const hasBar = $derived(
    Boolean(
      view.plan.front_linkage?.bar ||
      view.plan.rear_linkage?.bar ||
      view.plan.footing.front_end?.bar ||
      view.plan.footing.rear_end?.bar,
    ),
  );

  async function record(what: What, title: string): Promise<void> {
    const fate = await car.ask(what, title);
    refusal = fate.fate === 'refused' ? fate.sentence : '';
  }
  const happened = (what: 'level' | 'bar_on' | 'bar_off', words: string) =>
    record({ kind: 'happened', version: 1, what, corner: null, words: '', points: [] }, words);
  const read = (corner: Corner, quantity: string) => router.go(`/cars/${car.slug}/stance/floor/${corner}/${quantity}`);
</script>

<Forms label={STANCE.tabs.state}>
  {#if refusal}<p role="alert">{refusal}</p>{/if}
  <fieldset>
    <legend>{STATE.pads}</legend>
    {#each stance.pads_say as line (line)}<p>{line}</p>{/each}
    {#if stance.pads_way !== 'unproved'}
      <table>
        <thead
          ><tr
            >{#each Object.values(STATE.pad) as name (name)}<th scope="col">{name}</th>{/each}</tr
          ></thead
        >
        <tbody
          >{#each stance.pads as pad (pad.corner)}<tr
              ><th scope="row">{CORNER_WORDS[pad.corner]}</th><td class="fig">{pad.say}</td><td class="fig"
                >{pad.pack || pad.up || '—'}</td
              ><td class="fig">{pad.adds || '—'}</td></tr
            >{/each}</tbody
        >
      </table>
    {/if}
    <div class="row">
      <button type="button" class="button" onclick={() => read('LF', 'pad')}>{STATE.readPads}</button
      >{#if stance.pads_way === 'arithmetic'}<button
          type="button"
          class="button"
          onclick={() => void happened('level', STATE.shimmed)}>{STATE.shimmed}</button
        >{/if}
    </div>
  </fieldset>
  <fieldset>
    <legend>{STATE.state}</legend>
    {#if !stance.state}<p class="soft">{STATE.unsaid}</p>{/if}
    <div class="grid state">
      <label
        >{STATE.aboard}<select bind:value={aboard}
          >{#each Object.entries(STATE.aboards) as [key, word] (key)}<option value={key}>{word}</option>{/each}</select
        ></label
      >
      <label>{STATE.fuel}<input bind:value={fuel} maxlength="80" /></label>
      <label class="check"><input type="checkbox" bind:checked={pressure} />{STATE.pressure}</label>
    </div>
    <label>{STATE.missing}<textarea bind:value={missing} rows="2"></textarea></label>
    <button
      type="button"
      class="button"
      data-main
      onclick={() =>
        void record(
          {
            kind: 'state',
            version: 1,
            aboard,
            fuel,
            missing: missing
              .split('\n')
              .map((m) => m.trim())
              .filter(Boolean),
            at_pressure: pressure,
          },
          STATE.state,
        )}>{STATE.keep}</button
    >
  </fieldset>
  {#if hasBar}
    <fieldset>
      <legend>{STATE.bars}</legend>
      <div class="row">
        <span>{STANCE.bars[view.condition.bar_connected ? 'on' : 'off']}</span><button
          type="button"
          class="button"
          onclick={() => void happened(view.condition.bar_connected ? 'bar_off' : 'bar_on', STATE.bars)}
          >{view.condition.bar_connected ? STANCE.takeOff : STANCE.putOn}</button
        >
      </div>
    </fieldset>
  {/if}
  <fieldset>
    <legend>{STATE.tyres}</legend>
    <p class="soft">{STATE.tyreSoft}</p>
    {#each CORNERS as c (c)}
      {@const standIn = stance.stand_ins.includes(c)}
      <div class="row">
        <span>{CORNER_WORDS[c]}: {standIn ? STATE.stand_in : STATE.own} {STATE.fitted}</span><button
          type="button"
          class="button"
          aria-label="{CORNER_WORDS[c]}: {STATE.radius}"
          onclick={() => read(c, 'radius')}>{STATE.radius}</button
        ><button
          type="button"
          class="button"
          onclick={() =>
            void record({ kind: 'fitted', version: 1, stand_in: !standIn, corner: c, words: '' }, STATE.tyres)}
          >{standIn ? STATE.ownAgain : STATE.fitStandIn}</button
        >
      </div>
    {/each}
  </fieldset>
  <fieldset>
    <legend>{STATE.features}</legend>
    <p class="soft">{STATE.featuresSoft}</p>
    <table>
      <thead><tr><th></th><th scope="col">{STATE.wanted}</th><th scope="col">{STATE.now}</th></tr></thead>
      <tbody
        >{#each stance.features as f (f.name)}<tr data-master={f.master || undefined}
            ><th scope="row">{f.name}</th><td class="fig">{f.wanted}</td><td class="fig">{f.now || '—'}</td></tr
          >{/each}</tbody
      >
    </table>
  </fieldset>
  {#if stance.notes.length}<fieldset>
      <legend>{STATE.notes}</legend>{#each stance.notes as note (note)}<p>{note}</p>{/each}
    </fieldset>{/if}
</Forms>

<style>
  .row {
    display: flex;
    gap: 10px;
    align-items: center;
    flex-wrap: wrap;
  }
  .row span {
    flex: 1 1 160px;
  }
  .state {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
  }
  table {
    border-collapse: collapse;
    width: 100%;
    font-size: 0.9375rem;
  }
  th {
    text-align: left;
    font-weight: 400;
  }
  thead th {
    color: var(--ink-soft);
    font-size: 0.8125rem;
  }
  td,
  thead th + th {
    text-align: right;
    padding-left: 8px;
  }
  tbody tr {
    border-top: 1px solid var(--edge);
    height: 30px;
  }
  [data-master] th {
    font-weight: 700;
  }
</style>
