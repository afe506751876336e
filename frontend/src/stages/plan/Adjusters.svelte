<script lang="ts">
  // The adjusters of a car: tubes, rod ends, shims and perches, each with its thread and what is left of it.
  import { api, type Corner, type Layout, type Units } from '$lib/api/client';
  import { until } from '$lib/api/until';
  import { CORNER_WORDS, CORNERS, isFront, isLeft } from '$lib/marks';
  import FigureField from '$parts/FigureField.svelte';
  import { type AdjusterDraft, type AdjusterKind, type Draft, type EndDraft, kindOf, newAdjuster } from './draft';
  import { PLAN } from './texts';

  type Props = { adjusters: AdjusterDraft[]; draft: Draft; units: Units; at: (path: string) => string };
  let { adjusters = $bindable(), draft, units, at }: Props = $props();

  const add = (kind: AdjusterKind) =>
    adjusters.push(
      newAdjuster(
        kind,
        adjusters.map((a) => a.id),
      ),
    );

  let layouts = $state.raw<Layout[]>([]);
  $effect(() => until(api.layouts, (found) => (layouts = found)));
  const layoutOf = (c: Corner) => layouts.find((l) => l.name === draft.linkages[isFront(c) ? 'front' : 'rear']?.layout);
  const prefixOf = (c: Corner) => (layoutOf(c)?.axle ? (isFront(c) ? 'front' : 'rear') : c);
  const WAYS = { forward: [1, 0, 0], aft: [-1, 0, 0], up: [0, 0, 1], down: [0, 0, -1] } as Record<
    string,
    [number, number, number]
  >;
  const way = (name: string, c: Corner): [number, number, number] =>
    WAYS[name] ?? [0, (name === 'outboard' ? 1 : -1) * (isLeft(c) ? 1 : -1), 0];
  const nameOf = (a: AdjusterDraft) =>
    Object.keys(PLAN.directions).find((n) => way(n, a.corner).every((v, i) => v === a.moves?.direction?.[i])) ??
    'outboard';
  function move(a: AdjusterDraft, value: string): void {
    const [kind, name] = [value.slice(0, 1), value.slice(1)];
    a.moves = !value
      ? null
      : { name, direction: kind === '.' ? (a.moves?.direction ?? way('outboard', a.corner)) : null };
  }
  const counts = ['fitted', 'most'];
  const THREADS: Partial<Record<string, 'thread' | 'pitch'>> = { diameter: 'thread', pitch_mm_per_turn: 'pitch' };
  /** A thread named whole gives its pitch and hand too. */
  function thread(end: EndDraft, { pitch, hand }: { pitch: number | null; hand: 'left' | 'right' | null }): void {
    if (pitch !== null) end.pitch_mm_per_turn = pitch;
    if (hand !== null) end.hand = hand;
  }
</script>

<section class="card">
  <h2>{PLAN.adjusters}</h2>
  <p class="soft">{PLAN.adjustersSoft}</p>
  {#each adjusters as a (a.id)}
    {@const path = `adjusters.${a.id}`}
    <fieldset>
      <legend>{PLAN.kind[kindOf(a)]}</legend>
      <label
        >{PLAN.adjusterName}<input
          bind:value={a.name}
          maxlength="80"
          aria-invalid={at(`${path}.name`) ? 'true' : undefined}
        /></label
      >
      <label
        >{PLAN.corner}<select bind:value={a.corner}
          >{#each CORNERS as c (c)}<option value={c}>{CORNER_WORDS[c]}</option>{/each}</select
        ></label
      >
      <button
        type="button"
        class="button"
        onclick={() => (adjusters = adjusters.filter((b) => b !== a))}
        aria-label="{PLAN.remove} {a.name}">{PLAN.remove}</button
      >
      {#if !a.perch && layoutOf(a.corner)}
        {@const layout = layoutOf(a.corner)!}
        {@const prefix = prefixOf(a.corner)}
        <div class="end" title={PLAN.movesSoft}>
          <label
            >{PLAN.moves}<select
              value={a.moves ? (a.moves.direction ? '.' : '=') + a.moves.name : ''}
              onchange={(e) => move(a, e.currentTarget.value)}
              aria-invalid={at(`${path}.moves`) ? 'true' : undefined}
            >
              <option value="">{PLAN.movesNothing}</option>
              {#each layout.members as member (member)}<option value="={prefix}.{member}"
                  >{member}, {PLAN.longer}</option
                >{/each}
              {#each layout.needed as point (point)}<option value=".{prefix}.{point}"
                  >{point.replaceAll('.', ' ')}</option
                >{/each}
            </select></label
          >
          {#if a.moves?.direction}<label
              >{PLAN.direction}<select
                value={nameOf(a)}
                onchange={(e) => (a.moves!.direction = way(e.currentTarget.value, a.corner))}
                >{#each Object.entries(PLAN.directions) as [name, words] (name)}<option value={name}>{words}</option
                  >{/each}</select
              ></label
            >{/if}
          <label>{PLAN.lock}<input bind:value={a.lock} maxlength="80" /></label>
          {#if at(`${path}.moves`)}<small class="no">{at(`${path}.moves`)}</small>{/if}
        </div>
      {/if}
      {#each a.ends ?? [] as end, i (i)}
        <div class="end">
          {#each ['diameter', 'pitch_mm_per_turn', 'engaged', 'exposed'] as const as part (part)}
            <FigureField
              label={PLAN.end[part]}
              name="{PLAN.end[part]}, {end.hand === 'left' ? PLAN.left : PLAN.right} end"
              value={end[part]}
              kind={THREADS[part] ?? 'length'}
              {units}
              problem={at(`${path}.ends.${i}.${part}`)}
              onchange={(v) => (end[part] = v)}
              onthread={(t) => thread(end, t)}
            />
          {/each}
          <label
            >{PLAN.hand}<select bind:value={end.hand} aria-invalid={at(`${path}.ends.${i}.hand`) ? 'true' : undefined}
              ><option value="right">{PLAN.right}</option><option value="left">{PLAN.left}</option></select
            ></label
          >
          {#if at(`${path}.ends.${i}.hand`)}<small class="no">{at(`${path}.ends.${i}.hand`)}</small>{/if}
        </div>
      {/each}
      {#if kindOf(a) === 'rod_end'}<label class="check"
          ><input type="checkbox" bind:checked={a.half_turns_only} />{PLAN.half}</label
        >{/if}
      {#if a.shims}
        <div class="end">
          {#each ['thickness', 'fitted', 'most'] as const as part (part)}
            <FigureField
              label={PLAN.stack[part]}
              value={a.shims[part]}
              kind={counts.includes(part) ? 'number' : 'length'}
              {units}
              problem={at(`${path}.shims.${part}`)}
              onchange={(v) => (a.shims![part] = v)}
            />
          {/each}
        </div>
      {/if}
      {#if a.perch}
        <div class="end">
          {#each ['pitch_mm_per_turn', 'room_up', 'room_down', 'spring_per_wheel'] as const as part (part)}
            <FigureField
              label={PLAN.perch[part]}
              value={a.perch[part]}
              kind={part === 'spring_per_wheel' ? 'number' : (THREADS[part] ?? 'length')}
              {units}
              problem={at(`${path}.perch.${part}`)}
              onchange={(v) => (a.perch![part] = v)}
            />
          {/each}
        </div>
      {/if}
    </fieldset>
  {/each}
  <div class="add">
    {#each Object.entries(PLAN.add) as [kind, words] (kind)}<button
        type="button"
        class="button"
        onclick={() => add(kind as AdjusterKind)}>{words}</button
      >{/each}
  </div>
</section>

<style>
  h2 {
    font-size: 1.0625rem;
  }
  fieldset {
    border: 1px solid var(--edge);
    border-radius: var(--round);
    padding: 2px 10px 10px;
    margin: 8px 0;
    display: grid;
    grid-template-columns: minmax(160px, 1fr) 150px 100px;
    gap: 6px 10px;
    align-items: end;
  }
  legend {
    font-weight: 700;
    padding: 0 4px;
  }
  label {
    display: grid;
    gap: 1px;
    color: var(--ink-soft);
    font-size: 0.8125rem;
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
  }
  [aria-invalid] {
    border: 2px solid var(--rust);
  }
  .end {
    grid-column: 1 / -1;
    display: grid;
    grid-template-columns: repeat(5, minmax(0, 1fr));
    gap: 6px 10px;
    align-items: start;
  }
  .check {
    display: flex;
    gap: 8px;
    align-items: center;
    grid-column: 1 / -1;
    min-height: var(--touch);
  }
  .check input {
    width: 22px;
    min-height: 22px;
  }
  .no {
    color: var(--rust);
    font-weight: 700;
    grid-column: 1 / -1;
  }
  .add {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
</style>
