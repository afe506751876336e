<script lang="ts">
  // Datum, support, level, what was done to the frame, and what its points have come to.
  import { api, type JigView, type What } from '$lib/api/client';
  import { until } from '$lib/api/until';
  import { takeOut } from '$lib/takeout';
  import Forms from '$parts/Forms.svelte';
  import type { Survey } from './survey.svelte';
  import { DATUM_WAYS, JIG } from './texts';

  type Props = { survey: Survey; view: JigView };
  let { survey, view }: Props = $props();

  const names = $derived(view.points.map((p) => p.name));
  const prefixes = $derived(
    [...new Set(names.flatMap((n) => n.split('.').map((_, i, all) => all.slice(0, i + 1).join('.'))))].sort(),
  );
  let datum = $state<string[]>(['', '', '', '', '', '']);
  $effect(() => {
    if (view.datum) datum = [...view.datum.plane, ...view.datum.line, view.datum.point];
  });
  let words = $state('');
  let way = $state<(typeof DATUM_WAYS)[number]>('named points');
  let happened = $state<keyof typeof JIG.happenedWhat>('weld');
  const EVERYTHING = '*'; // said on purpose: nothing of the frame counts any more after it
  let where = $state('');
  let lost = $state('');
  let point = $state('');
  let status = $state<keyof typeof JIG.statuses>('tacked');
  let pin = $state<keyof typeof JIG.pinSays>('free');
  let foot = $state('');
  let footRead = $state({ typed: '' });
  let slope = $state<{ way: 'along' | 'across'; first: string; back: string }>({ way: 'along', first: '', back: '' });
  let refusal = $state('');
  const say = (name: string) => name.replaceAll('.', ' ');
  const lengthTool = $derived(
    view.tools.find((t) => t.id === 'rule')?.id ?? view.tools.find((t) => t.measures === 'length')?.id ?? '',
  );
  const angleTool = $derived(view.tools.find((t) => t.measures === 'angle')?.id ?? '');

  async function record(what: What, title: string): Promise<boolean> {
    refusal = await survey.record(what, title);
    return !refusal;
  }
  // What carries the datum is said before it is gone.
  $effect(() => {
    const prefix = where;
    lost = '';
    return prefix && prefix !== EVERYTHING && happened !== 'knock'
      ? until(
          () => api.lost(survey.car.slug, prefix),
          (found) => (lost = found.say),
        )
      : undefined;
  });
  const choose = () =>
    record(
      {
        kind: 'datum',
        version: 1,
        plane: datum.slice(0, 3) as [string, string, string],
        line: datum.slice(3, 5) as [string, string],
        point: datum[5]!,
        words,
        way,
        figures: null,
      },
      JIG.datum,
    );
</script>

<Forms label={JIG.tabs.state}>
  {#if refusal}<p role="alert">{refusal}</p>{/if}
  <fieldset>
    <legend>{JIG.datum}</legend>
    <p class="soft">
      {view.datum
        ? `${JIG.chosen} ${[...view.datum.plane, ...view.datum.line, view.datum.point].map(say).join(', ')}. ${view.datum.words}`
        : JIG.noDatum}
      {view.axes}
    </p>
    <div class="grid six">
      {#each datum as _, i (i)}
        <label
          >{i < 3 ? JIG.short.plane : i < 5 ? JIG.short.line : JIG.short.point}
          {i < 3 ? i + 1 : i < 5 ? i - 2 : ''}<select
            bind:value={datum[i]}
            aria-label="{JIG.datum}, {i < 3 ? JIG.short.plane : i < 5 ? JIG.short.line : JIG.short.point} {i < 3
              ? i + 1
              : i < 5
                ? i - 2
                : ''}"
            ><option value=""></option>{#each names as name (name)}<option value={name}>{say(name)}</option
              >{/each}</select
          ></label
        >
      {/each}
    </div>
    {#if view.carried}<div class="grid two">
        <p><b>{JIG.carry}</b> {[...new Set([...view.carried.plane, ...view.carried.line])].map(say).join(', ')}</p>
        <button type="button" class="button" data-main onclick={() => record(view.carried!, JIG.datum)}
          >{JIG.confirm}</button
        >
      </div>{/if}
    {#if view.datum_note}<p class="caution">{view.datum_note}</p>{/if}
    <label
      >{JIG.datumWay}<select bind:value={way}
        >{#each DATUM_WAYS as one (one)}<option>{one}</option>{/each}</select
      ></label
    >
    <div class="grid two">
      <label>{JIG.words}<input bind:value={words} maxlength="400" /></label><button
        type="button"
        class="button"
        disabled={datum.some((d) => !d)}
        onclick={choose}>{JIG.choose}</button
      >
    </div>
  </fieldset>

  {#if view.moved.length}
    <fieldset>
      <legend>{JIG.sinceHead}</legend>
      <p class="soft">{JIG.since(view.since)}.</p>
      <ul class="plain">
        {#each view.moved as line (line)}<li>{line}</li>{/each}
      </ul>
    </fieldset>
  {/if}
  <fieldset>
    <legend>{JIG.square}</legend>
    <ul class="plain">
      {#each view.square as line (line)}<li>{line}</li>{:else}<li class="soft">
          {JIG.squareNone}
        </li>{/each}{#each view.notes as line (line)}<li class="soft">{line}</li>{/each}
    </ul>
  </fieldset>
  {#if view.level}
    <fieldset>
      <legend>{JIG.level}</legend>
      <p><b>{view.level.sentence}</b> {view.level.notes.join(' ')}</p>
      <ul>
        {#each view.level.feet as f (f.name)}<li data-past={!f.counts || undefined}>
            <b>{f.name}</b> <span class="fig">{f.say || '—'}</span>
            {f.do}
          </li>{/each}
      </ul>
      <div class="grid three">
        <label
          >{JIG.foot}<select bind:value={foot}
            ><option value=""></option>{#each view.level.feet as f (f.name)}<option>{f.name}</option>{/each}</select
          ></label
        >
        <label
          >{JIG.footRead}<input class="fig" bind:value={footRead.typed} maxlength="40" title={JIG.footSoft} /></label
        >
        <button
          type="button"
          class="button"
          disabled={!foot || !footRead.typed.trim()}
          onclick={() =>
            void takeOut(footRead, ['typed'], ({ typed }) =>
              record({ kind: 'foot', version: 1, foot, typed, tool: lengthTool }, `${JIG.foot} ${foot}: ${typed}`),
            )}>{JIG.readFoot}</button
        >
      </div>
      <div class="grid four">
        <label
          >{JIG.slope}<select bind:value={slope.way}
            ><option value="along">{JIG.alongWay}</option><option value="across">{JIG.acrossWay}</option></select
          ></label
        >
        <label>{JIG.first}<input class="fig" bind:value={slope.first} maxlength="20" /></label><label
          >{JIG.turned}<input class="fig" bind:value={slope.back} maxlength="20" /></label
        >
        <button
          type="button"
          class="button"
          disabled={!slope.first.trim() || !slope.back.trim()}
          onclick={() =>
            void takeOut(slope as Record<'first' | 'back', string>, ['first', 'back'], ({ first, back }) =>
              record(
                { kind: 'slope', version: 1, way: slope.way, typed: first, reversed_typed: back, tool: angleTool },
                JIG.slope,
              ),
            )}>{JIG.record}</button
        >
      </div>
    </fieldset>
  {/if}

  <fieldset>
    <legend>{JIG.happened}</legend>
    <div class="grid three">
      <label
        >{JIG.tell}<select bind:value={happened}
          >{#each Object.entries(JIG.happenedWhat) as [what, name] (what)}<option value={what}>{name}</option
            >{/each}</select
        ></label
      >
      <label
        >{JIG.where}<select bind:value={where}
          ><option value="">{JIG.chooseWhere}</option><option value={EVERYTHING}>{JIG.everything}</option
          >{#each prefixes as p (p)}<option value={p}>{say(p)}</option>{/each}</select
        ></label
      >
      <button
        type="button"
        class="button"
        disabled={!where}
        onclick={() =>
          record(
            {
              kind: 'happened',
              version: 1,
              what: happened,
              corner: null,
              words: '',
              points: where === EVERYTHING ? [] : [where],
            },
            JIG.happenedWhat[happened],
          )}>{JIG.tell}</button
      >
    </div>
    <p class="caution">{happened === 'weld' ? JIG.weld : JIG.lift}</p>
    {#if lost}<p role="status" class="lost">{lost}</p>{/if}
  </fieldset>

  <fieldset>
    <legend>{JIG.status}</legend>
    <div class="grid four">
      <label
        >{JIG.where}<select bind:value={point}
          ><option value=""></option>{#each prefixes as p (p)}<option value={p}>{say(p)}</option>{/each}</select
        ></label
      >
      <label
        >{JIG.tabs.pickups}<select bind:value={status}
          >{#each Object.entries(JIG.statuses) as [s, name] (s)}<option value={s}>{name}</option>{/each}</select
        ></label
      >
      <button
        type="button"
        class="button"
        disabled={!point}
        onclick={() => record({ kind: 'status', version: 1, point, status }, JIG.status)}>{JIG.mark}</button
      >
    </div>
    {#if (status === 'welded' || status === 'painted') && view.works.holds.some((h) => !h.met)}<p
        class="caution"
        role="status"
      >
        {JIG.stillOpen(view.works.holds.filter((h) => !h.met).map((h) => h.condition))}
      </p>{/if}
    <div class="grid four">
      <label
        >{JIG.pin}<select bind:value={pin}
          >{#each Object.entries(JIG.pinSays) as [s, name] (s)}<option value={s}>{name}</option>{/each}</select
        ></label
      >
      <button
        type="button"
        class="button"
        disabled={!names.includes(point)}
        onclick={() => record({ kind: 'pin', version: 1, point, says: pin }, JIG.pin)}>{JIG.mark}</button
      >
    </div>
    <p class="soft">
      {#each view.points.filter((p) => p.pins.length) as p (p.name)}{p.say}: {p.pins.join(', then ')}.
      {/each}
    </p>
  </fieldset>

  <fieldset>
    <legend>{JIG.support}</legend>
    <div class="grid two">
      <label
        >{JIG.zero}<select
          value={view.zero}
          onchange={(e) =>
            record({ kind: 'zeroed', version: 1, on: e.currentTarget.value as JigView['zero'] }, JIG.zero)}
          >{#each Object.entries(JIG.zeros) as [on, name] (on)}<option value={on}>{name}</option>{/each}</select
        ></label
      >
    </div>
    <div class="grid two">
      <label
        >{JIG.supportSoft}<select
          value={view.support}
          onchange={(e) =>
            record({ kind: 'supported', version: 1, how: e.currentTarget.value as JigView['support'] }, JIG.support)}
          >{#each view.supports as how (how)}<option>{how}</option>{/each}</select
        ></label
      >
    </div>
  </fieldset>
</Forms>

<style>
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    grid-template-columns: repeat(2, 1fr);
    gap: 2px 14px;
    font-size: 0.875rem;
  }
  .plain {
    grid-template-columns: 1fr;
  }
  [data-past] {
    opacity: 0.6;
  }
  .lost {
    color: var(--rust);
    font-weight: 700;
    font-size: 0.875rem;
  }
</style>
