<script lang="ts">
  // What the car stands on: weight, tyres, stops, bars; the lowest points, features to say ride height by, and where stands go.
  import FigureField from '$parts/FigureField.svelte';
  import type { Plan } from '$lib/api/client';
  import type { Draft } from './draft';
  import { newFeature } from './footing';
  import { FOOTING, PLAN } from './texts';

  type Props = { draft: Draft; at: (path: string) => string };
  let { draft, at }: Props = $props();
  const ends = ['front', 'rear'] as const;
  const lists = ['features', 'low', 'stands'] as const;
  const schools: Plan['footing']['school'][] = ['height', 'weight', 'both'];
  const take = (list: 'features' | 'low' | 'stands', i: number) =>
    (draft.footing[list] = draft.footing[list].filter((_, n) => n !== i));
  const parts = ['station', 'offset', 'height'] as const;
</script>

<section class="card" aria-label={FOOTING.title}>
  <h2>{FOOTING.title}</h2>
  <p class="soft">{FOOTING.soft}</p>
  <div class="grid">
    <FigureField
      label={FOOTING.mass}
      value={draft.footing.mass}
      kind="mass"
      units={draft.units}
      problem={at('footing.mass')}
      onchange={(v) => (draft.footing.mass = v)}
    />
    <FigureField
      label={FOOTING.front}
      value={draft.footing.front}
      kind="number"
      units={draft.units}
      problem={at('footing.front')}
      onchange={(v) => (draft.footing.front = v ?? 50)}
    />
    <FigureField
      label={FOOTING.left}
      value={draft.footing.left}
      kind="number"
      units={draft.units}
      problem={at('footing.left')}
      onchange={(v) => (draft.footing.left = v ?? 50)}
    />
    <label
      >{FOOTING.school}<select bind:value={draft.footing.school}
        >{#each schools as s (s)}<option value={s}>{FOOTING.schools[s!]}</option>{/each}</select
      ></label
    >
    <label>{FOOTING.reason}<input bind:value={draft.footing.school_reason} maxlength="400" /></label>
    <FigureField
      label={FOOTING.margin}
      value={draft.footing.margin}
      kind="length"
      units={draft.units}
      onchange={(v) => (draft.footing.margin = v ?? 0)}
    />
  </div>
  {#each ends as end (end)}
    <h3>{PLAN.axles[end]}</h3>
    <div class="grid">
      <FigureField
        label={FOOTING.tyre_rate}
        name="{end}, {FOOTING.tyre_rate}"
        value={draft.footing.ends[end].tyre_rate}
        kind="rate"
        units={draft.units}
        problem={at('footing.tyre_rate')}
        onchange={(v) => (draft.footing.ends[end].tyre_rate = v)}
      />
      <FigureField
        label={FOOTING.unsprung}
        name="{end}, {FOOTING.unsprung}"
        value={draft.footing.ends[end].unsprung}
        kind="mass"
        units={draft.units}
        problem={at('footing.unsprung')}
        onchange={(v) => (draft.footing.ends[end].unsprung = v)}
      />
      {#each ['bump', 'droop', 'to_body'] as const as part (part)}
        <FigureField
          label={FOOTING[part]}
          name="{end}, {FOOTING[part]}"
          value={draft.footing.ends[end][part]}
          kind="length"
          units={draft.units}
          problem={at(`footing.${part}`)}
          onchange={(v) => (draft.footing.ends[end][part] = v)}
        />
      {/each}
      {#each ['diameter', 'bore', 'length', 'arm'] as const as part (part)}
        <FigureField
          label={FOOTING.bar[part]}
          name="{end}, {FOOTING.bar[part]}"
          value={draft.footing.ends[end].bar[part]}
          kind="length"
          units={draft.units}
          problem={part === 'diameter' ? at('footing.bar') : ''}
          onchange={(v) => (draft.footing.ends[end].bar[part] = v)}
        />
      {/each}
    </div>
  {/each}
  {#each lists as list (list)}
    <h3>{FOOTING.lists[list]}</h3>
    <p class="soft">{FOOTING.listsSoft[list]}</p>
    {#each draft.footing[list] as row, i (i)}
      <div class="row">
        <label
          >{FOOTING.name}<input
            bind:value={row.name}
            maxlength="80"
            aria-label="{FOOTING.lists[list]} {i + 1}, {FOOTING.name}"
          /></label
        >
        {#each parts as part (part)}<FigureField
            label={FOOTING[part]}
            name="{row.name || list} {FOOTING[part]}"
            value={row[part]}
            kind="length"
            units={draft.units}
            problem={at(`footing.${list}.${i}.${part}`)}
            onchange={(v) => (row[part] = v)}
          />{/each}
        <button type="button" class="button" aria-label="{FOOTING.out} {row.name}" onclick={() => take(list, i)}
          >{FOOTING.out}</button
        >
      </div>
    {/each}
    <button type="button" class="button" onclick={() => draft.footing[list].push(newFeature())}
      >{FOOTING.add[list]}</button
    >
  {/each}
</section>

<style>
  section {
    display: grid;
    gap: 8px;
    justify-items: start;
  }
  .grid {
    display: grid;
    grid-template-columns: repeat(5, minmax(0, 1fr));
    gap: 8px;
    width: 100%;
  }
  .row {
    display: grid;
    grid-template-columns: minmax(0, 2fr) repeat(3, minmax(0, 1fr)) auto;
    gap: 8px;
    align-items: end;
    width: 100%;
  }
  label {
    display: grid;
    color: var(--ink-soft);
    font-size: 0.8125rem;
    min-width: 0;
    align-content: start;
  }
  input,
  select {
    min-height: var(--touch);
    width: 100%;
    border: 1px solid var(--steel-dark);
    border-radius: var(--round);
    background: #fff;
    padding: 2px 8px;
    font-size: 1rem;
    color: var(--ink);
  }
  h3 {
    font-size: 1rem;
  }
</style>
