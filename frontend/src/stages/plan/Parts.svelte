<script lang="ts">
  // What else hangs on a linkage: rocker, bar, halfshaft, torsion bars, and how far its joints may work.
  import { api, type Layout, type Linkage } from '$lib/api/client';
  import { until } from '$lib/api/until';
  import FigureField from '$parts/FigureField.svelte';
  import type { Draft, End } from './draft';
  import { PARTS, PLAN } from './texts';

  type Props = { draft: Draft; at: (path: string) => string };
  let { draft, at }: Props = $props();
  type Torsion = NonNullable<Linkage['torsions']>[number];
  type Joint = NonNullable<Linkage['joints']>[number];
  const ends = ['front', 'rear'] as const;
  let layouts = $state.raw<Layout[]>([]);
  $effect(() => until(api.layouts, (found) => (layouts = found)));
  const layoutOf = (end: End) => layouts.find((l) => l.name === draft.linkages[end]?.layout);
  const own = (end: End, part: Partial<Linkage>) => (draft.linkages[end] = { ...draft.linkages[end]!, ...part });
  const torsion = (end: End, i: number, part: Partial<Torsion>) =>
    own(end, { torsions: draft.linkages[end]!.torsions!.map((t, n) => (n === i ? { ...t, ...part } : t)) });
  const joint = (end: End, i: number, part: Partial<Joint>) =>
    own(end, { joints: draft.linkages[end]!.joints!.map((j, n) => (n === i ? { ...j, ...part } : j)) });
  const stud = (end: End, i: number, axis: number, v: number | null) => {
    const now = [...(draft.linkages[end]!.joints![i]!.stud ?? [0, 0, 0])] as [number, number, number];
    now[axis] = v ?? 0;
    joint(end, i, { stud: now.some((x) => x !== 0) ? now : null });
  };
  const ROCKER = { first: '', second: '', push: '', rod: { point: '', on: 'upright' } };
  const BAR = { first: '', second: '', arm: '', link: { point: '', on: 'upright' } };
</script>

{#snippet point(end: End, label: string, value: string, set: (v: string) => void)}
  <label
    >{label}<input
      list="{end}-points"
      {value}
      aria-label="{PLAN.axles[end]}, {label}"
      onchange={(e) => set(e.currentTarget.value.trim())}
    /></label
  >
{/snippet}
{#snippet stands(end: End, label: string, value: string, set: (v: string) => void)}
  <label
    >{label}<input
      list="stands"
      {value}
      aria-label="{PLAN.axles[end]}, {label}"
      onchange={(e) => set(e.currentTarget.value.trim())}
    /></label
  >
{/snippet}

<section class="card" aria-label={PARTS.title}>
  <h2>{PARTS.title}</h2>
  <p class="soft">{PARTS.soft}</p>
  {#each ends.filter((e) => draft.linkages[e]) as end (end)}
    {@const linkage = draft.linkages[end]!}
    {@const path = `${end}_linkage`}
    <h3>{PLAN.axles[end]}</h3>
    {#if linkage.rocker}
      {@const rocker = linkage.rocker}
      <fieldset>
        <legend>{PARTS.rocker}</legend>
        <div class="row">
          {#each ['first', 'second', 'push'] as const as part (part)}{@render point(
              end,
              PARTS[part],
              rocker[part],
              (v) => own(end, { rocker: { ...rocker, [part]: v } }),
            )}{/each}
          {@render point(end, PARTS.rod, rocker.rod.point, (v) =>
            own(end, { rocker: { ...rocker, rod: { ...rocker.rod, point: v } } }),
          )}
          {@render stands(end, PARTS.on, rocker.rod.on, (v) =>
            own(end, { rocker: { ...rocker, rod: { ...rocker.rod, on: v } } }),
          )}
          <button
            type="button"
            class="button"
            aria-label="{PARTS.out} {PARTS.rocker}, {PLAN.axles[end]}"
            onclick={() => own(end, { rocker: null })}>{PARTS.out}</button
          >
        </div>
        {#if at(`${path}.rocker`)}<small class="no" role="alert">{at(`${path}.rocker`)}</small>{/if}
      </fieldset>
    {/if}
    {#if linkage.bar}
      {@const bar = linkage.bar}
      <fieldset>
        <legend>{PARTS.bar}</legend>
        <div class="row">
          {#each ['first', 'second', 'arm'] as const as part (part)}{@render point(end, PARTS[part], bar[part], (v) =>
              own(end, { bar: { ...bar, [part]: v } }),
            )}{/each}
          {@render point(end, PARTS.link, bar.link.point, (v) =>
            own(end, { bar: { ...bar, link: { ...bar.link, point: v } } }),
          )}
          {@render stands(end, PARTS.on, bar.link.on, (v) =>
            own(end, { bar: { ...bar, link: { ...bar.link, on: v } } }),
          )}
          <button
            type="button"
            class="button"
            aria-label="{PARTS.out} {PARTS.bar}, {PLAN.axles[end]}"
            onclick={() => own(end, { bar: null })}>{PARTS.out}</button
          >
        </div>
        {#if at(`${path}.bar`)}<small class="no" role="alert">{at(`${path}.bar`)}</small>{/if}
      </fieldset>
    {/if}
    {#if linkage.shaft}
      {@const shaft = linkage.shaft}
      <fieldset>
        <legend>{PARTS.shaft}</legend>
        <div class="row">
          {#each ['inner', 'outer'] as const as part (part)}{@render point(end, PARTS[part], shaft[part], (v) =>
              own(end, { shaft: { ...shaft, [part]: v } }),
            )}{/each}
          <button
            type="button"
            class="button"
            aria-label="{PARTS.out} {PARTS.shaft}, {PLAN.axles[end]}"
            onclick={() => own(end, { shaft: null })}>{PARTS.out}</button
          >
        </div>
        {#if at(`${path}.shaft`)}<small class="no" role="alert">{at(`${path}.shaft`)}</small>{/if}
      </fieldset>
    {/if}
    {#each linkage.torsions ?? [] as bar, i (i)}
      <fieldset>
        <legend>{bar.name}</legend>
        <div class="row">
          <label
            >{PARTS.name}<input
              value={bar.name}
              maxlength="80"
              onchange={(e) => torsion(end, i, { name: e.currentTarget.value.trim() })}
            /></label
          >
          <label
            >{PARTS.onArm}<input
              list="stands"
              value={bar.arm}
              aria-label="{PLAN.axles[end]}, {PARTS.onArm}"
              onchange={(e) => torsion(end, i, { arm: e.currentTarget.value.trim() })}
            />{#if at(`${path}.torsions.${i}.arm`)}<small class="no" role="alert"
                >{at(`${path}.torsions.${i}.arm`)}</small
              >{/if}</label
          >
          <FigureField
            label={PARTS.rate}
            name="{PLAN.axles[end]}, {bar.name}, {PARTS.rate}"
            value={bar.rate ?? null}
            kind="torsion"
            units={draft.units}
            onchange={(v) => torsion(end, i, { rate: v })}
          />
          <FigureField
            label={PARTS.splinesIn}
            value={bar.inner ?? null}
            kind="number"
            units={draft.units}
            onchange={(v) => torsion(end, i, { inner: v })}
          />
          <FigureField
            label={PARTS.splinesOut}
            value={bar.outer ?? null}
            kind="number"
            units={draft.units}
            onchange={(v) => torsion(end, i, { outer: v })}
          />
          <FigureField
            label={PARTS.fine}
            value={bar.fine_deg ?? 0}
            kind="angle"
            units={draft.units}
            onchange={(v) => torsion(end, i, { fine_deg: v ?? 0 })}
          />
          <button
            type="button"
            class="button"
            aria-label="{PARTS.out} {bar.name}, {PLAN.axles[end]}"
            onclick={() => own(end, { torsions: linkage.torsions!.filter((_, n) => n !== i) })}>{PARTS.out}</button
          >
        </div>
      </fieldset>
    {/each}
    {#each linkage.joints ?? [] as one, i (i)}
      <fieldset>
        <legend>{one.member} {one.at}</legend>
        <div class="row">
          <label
            >{PARTS.member}<select value={one.member} onchange={(e) => joint(end, i, { member: e.currentTarget.value })}
              >{#each layoutOf(end)?.members ?? [one.member] as member (member)}<option>{member}</option>{/each}</select
            >{#if at(`${path}.joints.${i}.member`)}<small class="no" role="alert"
                >{at(`${path}.joints.${i}.member`)}</small
              >{/if}</label
          >
          <label
            >{PARTS.at}<select
              value={one.at}
              onchange={(e) => joint(end, i, { at: e.currentTarget.value as Joint['at'] })}
              >{#each Object.entries(PARTS.ends) as [value, word] (value)}<option {value}>{word}</option>{/each}</select
            ></label
          >
          <FigureField
            label={PARTS.limit}
            name="{PLAN.axles[end]}, {one.member} {one.at}, {PARTS.limit}"
            value={one.limit_deg}
            kind="angle"
            units={draft.units}
            problem={at(`${path}.joints.${i}.limit_deg`)}
            onchange={(v) => joint(end, i, { limit_deg: v ?? 0 })}
          />
          {#each PARTS.stud as word, axis (word)}<FigureField
              label={word}
              value={one.stud?.[axis] ?? null}
              kind="number"
              units={draft.units}
              onchange={(v) => stud(end, i, axis, v)}
            />{/each}
          <button
            type="button"
            class="button"
            aria-label="{PARTS.out} {one.member} {one.at}, {PLAN.axles[end]}"
            onclick={() => own(end, { joints: linkage.joints!.filter((_, n) => n !== i) })}>{PARTS.out}</button
          >
        </div>
      </fieldset>
    {/each}
    <div class="add">
      {#if !linkage.rocker}<button type="button" class="button" onclick={() => own(end, { rocker: { ...ROCKER } })}
          >{PARTS.add.rocker}</button
        >{/if}
      {#if !linkage.bar}<button type="button" class="button" onclick={() => own(end, { bar: { ...BAR } })}
          >{PARTS.add.bar}</button
        >{/if}
      {#if !linkage.shaft && !layoutOf(end)?.axle}<button
          type="button"
          class="button"
          onclick={() => own(end, { shaft: { inner: '', outer: '' } })}>{PARTS.add.shaft}</button
        >{/if}
      <button
        type="button"
        class="button"
        onclick={() =>
          own(end, {
            torsions: [
              ...(linkage.torsions ?? []),
              { name: PARTS.fresh, arm: '', rate: null, inner: null, outer: null, fine_deg: 0 },
            ],
          })}>{PARTS.add.torsions}</button
      >
      <button
        type="button"
        class="button"
        onclick={() =>
          own(end, {
            joints: [
              ...(linkage.joints ?? []),
              { member: layoutOf(end)?.members[0] ?? '', at: 'outer', limit_deg: 25, stud: null },
            ],
          })}>{PARTS.add.joints}</button
      >
    </div>
  {/each}
</section>

<style>
  h2 {
    font-size: 1.0625rem;
  }
  h3 {
    font-size: 1rem;
    margin-top: 8px;
  }
  fieldset {
    border: 1px solid var(--edge);
    border-radius: var(--round);
    padding: 4px 10px 8px;
    margin: 6px 0;
    min-width: 0;
  }
  legend {
    font-weight: 700;
    padding: 0 4px;
  }
  .row {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(110px, 1fr));
    gap: 8px;
    align-items: end;
  }
  .add {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
  .add .button {
    font-weight: 400;
  }
  label {
    display: grid;
    gap: 1px;
    color: var(--ink-soft);
    font-size: 0.8125rem;
    min-width: 0;
  }
  input,
  select {
    min-height: var(--touch);
    width: 100%;
    border: 1px solid var(--steel-dark);
    border-radius: var(--round);
    background: #fff;
    padding: 2px 8px;
    color: var(--ink);
    font-size: 1rem;
    min-width: 0;
  }
  .no {
    color: var(--rust);
    font-weight: 700;
  }
</style>
