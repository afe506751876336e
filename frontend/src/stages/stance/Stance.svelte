<script lang="ts">
  // Stage Stance: how the car stands from both sides, which perches bring it to its heights, and the rods that hold it without its springs.
  import { api, type StanceView } from '$lib/api/client';
  import type { Car } from '$lib/car.svelte';
  import { CORNER_WORDS, markOf } from '$lib/marks';
  import { link } from '$lib/router.svelte';
  import SideView from '$parts/drawing/SideView.svelte';
  import Witness from '$parts/Witness.svelte';
  import { STANCE } from './texts';

  type Props = { car: Car };
  let { car }: Props = $props();
  const view = $derived(car.view!);
  const base = $derived(`/cars/${car.slug}`);
  let found = $state.raw<StanceView | null>(null);
  let refusal = $state('');
  $effect(() => {
    void view.number; // whatever was read or turned may have moved it
    api.stance(car.slug).then((s) => ([found, refusal] = [s, '']), (error: Error) => (refusal = error.message));
  });
</script>

<main>
  <div class="sides">{#each ['LF', 'RF'] as const as corner (corner)}<div class="plate"><SideView {view} {corner} /></div>{/each}</div>
  <div class="panel">
    <section class="card" aria-label={STANCE.title}>
      {#if refusal}<p role="alert">{refusal}</p>{/if}
      {#if found}
        {#each found.says as line, i (line)}{#if i === 0}<h1>{line}</h1>{:else}<p class="no">{line}</p>{/if}{/each}
        {#if found.why_not}<p>{found.why_not}</p>{/if}
        <div class="marks">
          {#each found.corners as c (c.corner)}
            {@const mark = markOf(view, `${c.corner}.height`)}
            <a href="{base}/set/{c.corner}/height" use:link><Witness state={mark.state} size={30} /><span><small>{CORNER_WORDS[c.corner]}</small><b class="fig">{mark.say}</b><small>{mark.say_aim}{c.expected ? ` · ${STANCE.then} ${c.expected}` : ''}</small></span></a>
          {/each}
        </div>
      {:else if !refusal}<p role="status">…</p>{/if}
    </section>
    {#if found?.perches.length}
      <section class="card" aria-label={STANCE.perches}>
        <h2>{STANCE.perches}</h2><p class="soft">{STANCE.lift} {STANCE.next}</p>
        <ol>{#each found.perches as perch (perch.corner)}<li><b>{perch.say}</b> <a class="button" href="{base}/set/{perch.corner}/turn/{perch.adjuster}" use:link>{STANCE.turn}</a></li>{/each}</ol>
        <p class="caution">{found.perches[0]!.caution}</p>
      </section>
    {/if}
    {#if found}
      <section class="card" aria-label={STANCE.rods}>
        <h2>{STANCE.rods}</h2><p class="soft">{STANCE.rodsSoft}</p>
        <div class="scroll"><table>
          <thead><tr><th></th>{#each Object.values(STANCE.columns) as name (name)}<th scope="col">{name}</th>{/each}<th scope="col">{STANCE.rate}</th><th scope="col">{STANCE.ratio}</th></tr></thead>
          <tbody>
            {#each found.corners as c (c.corner)}
              {#each c.rods as rod (rod.name)}
                <tr><th scope="row">{CORNER_WORDS[c.corner]} <small>{rod.name}</small></th>{#each Object.keys(STANCE.columns) as key (key)}<td class="fig">{rod[key as keyof typeof STANCE.columns] || STANCE.unknown}</td>{/each}<td class="fig">{rod.rate || STANCE.unknown}{#if rod.rough}<small title={STANCE.rough}> {STANCE.rough} {rod.rough}</small>{/if}</td><td class="fig">{rod.ratio || STANCE.unknown}</td></tr>
              {:else}<tr><th scope="row">{CORNER_WORDS[c.corner]}</th><td colspan="6" class="soft">{STANCE.none}</td></tr>{/each}
            {/each}
          </tbody>
        </table></div>
        <p class="soft">{STANCE.strength}</p>
      </section>
    {/if}
  </div>
</main>

<style>
  main { display: grid; grid-template-columns: minmax(0, 46fr) minmax(0, 54fr); gap: var(--gap-3); padding: var(--gap-3); height: calc(100vh - 64px); min-height: 620px; }
  .sides { display: grid; grid-template-rows: 1fr 1fr; gap: var(--gap-3); min-height: 0; }
  .plate { display: grid; min-height: 0; }
  .panel { display: grid; gap: var(--gap-3); align-content: start; overflow: auto; min-height: 0; }
  h1 { font-size: 1.1875rem; line-height: 1.25; } h2 { font-size: 1.0625rem; }
  .marks { display: grid; grid-template-columns: repeat(4, minmax(0, 1fr)); gap: 10px; margin-top: 8px; }
  .marks a { display: flex; gap: 8px; color: var(--ink); text-decoration: none; min-height: var(--touch); align-items: center; min-width: 0; }
  .marks a:hover b { text-decoration: underline; }
  .marks b { display: block; font-weight: 400; font-size: 1.25rem; line-height: 1.15; }
  small { color: var(--ink-soft); font-size: 0.8125rem; line-height: 1.25; }
  .marks small { display: block; }
  ol { list-style: none; margin: 4px 0; padding: 0; }
  li { display: flex; justify-content: space-between; align-items: center; border-top: 1px solid var(--edge); padding: 4px 0; font-size: 1.125rem; }
  .scroll { overflow: auto; }
  table { border-collapse: collapse; width: 100%; font-size: 0.9375rem; }
  th { text-align: left; font-weight: 400; }
  thead th { color: var(--ink-soft); font-size: 0.8125rem; text-align: right; padding-left: 10px; }
  td { text-align: right; padding-left: 10px; white-space: nowrap; }
  td small { display: block; }
  td[colspan] { text-align: left; }
  tbody tr { border-top: 1px solid var(--edge); height: 36px; }
  .caution { background: #fff4cf; border-left: 6px solid var(--rust); padding: 2px 8px; }
  .no, [role='alert'] { color: var(--rust); font-weight: 700; }
  @media (max-width: 1000px) { main { grid-template-columns: minmax(0, 1fr); height: auto; } .sides { grid-template-rows: 260px 260px; } .panel { overflow: visible; } .marks { grid-template-columns: repeat(2, 1fr); } }
</style>
