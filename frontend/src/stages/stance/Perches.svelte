<script lang="ts">
  // What the car does on its wheels in a sentence, the perches to turn for it, what they do, and what was learned of them.
  import type { CarView, StanceView } from '$lib/api/client';
  import type { Car } from '$lib/car.svelte';
  import { CORNER_WORDS, markOf } from '$lib/marks';
  import Witness from '$parts/Witness.svelte';
  import { STANCE } from './texts';

  type Perch = StanceView['perches'][number];
  type Props = { car: Car; view: CarView; stance: StanceView; onturn: (perch: Perch) => void };
  let { car, view, stance, onturn }: Props = $props();

  const cross = $derived(markOf(view, 'car.cross_weight'));
  const learned = $derived(stance.corners.filter((c) => c.learned));
  let refusal = $state('');
  async function unlearn(adjuster: string): Promise<void> {
    const fate = await car.ask({ kind: 'unlearned', version: 1, adjuster }, STANCE.undo);
    refusal = fate.fate === 'refused' ? fate.sentence : '';
  }
</script>

<section class="card" aria-label={STANCE.title}>
  {#each stance.says as line, i (line)}{#if i === 0}<h1>{line}</h1>{:else}<p class="no">{line}</p>{/if}{/each}
  {#if stance.why_not}<p>{stance.why_not}</p>{/if}
  {#if stance.short && stance.short !== stance.why_not}<p class="no">{stance.short}</p>{/if}
  {#if stance.loads.length}
    <div class="loads">
      <Witness state={cross.state} size={26} />
      <p>
        {stance.loads.slice(4).join(', ')}{#if cross.say_aim}; {cross.say_aim}{/if}{#if stance.cross_then}, {STANCE.then}
          <b class="fig">{stance.cross_then}</b>{/if}
      </p>
    </div>
  {/if}
  {#each stance.load_says as line (line)}<p class="no">{line}</p>{/each}
  {#if stance.perches.length}
    <div class="todo" role="group" aria-label={STANCE.perches}>
      <ol>
        {#each stance.perches as perch (perch.corner)}<li>
            <b>{perch.say}</b> <button type="button" class="button" onclick={() => onturn(perch)}>{STANCE.turn}</button>
          </li>{/each}
      </ol>
      <p class="caution">{stance.perches[0]!.caution}</p>
    </div>
  {/if}
  {#if stance.corners[0]?.does.length}
    <details>
      <summary
        >{STANCE.does}{#if learned.length}&nbsp;· {STANCE.learned}{/if}</summary
      >
      <p class="soft">
        {STANCE.lift}
        {STANCE.next}
        {stance.school_words[0]!.toUpperCase()}{stance.school_words.slice(1)}. {STANCE.doesSoft}
      </p>
      <table>
        <thead
          ><tr
            ><th></th>{#each stance.corners as c (c.corner)}<th scope="col">{CORNER_WORDS[c.corner]}</th>{/each}<th
            ></th></tr
          ></thead
        >
        <tbody
          >{#each stance.corners as c (c.corner)}<tr
              ><th scope="row">{CORNER_WORDS[c.corner]}</th>{#each c.does_short as said, i (i)}<td class="fig"
                  >{said}</td
                >{/each}</tr
            >{/each}</tbody
        >
      </table>
      <ul>
        {#each learned as c (c.corner)}<li>
            {c.learned}
            <button type="button" class="button" onclick={() => void unlearn(c.learned_of)}>{STANCE.undo}</button>
          </li>{:else}<li class="soft">{STANCE.learnedNone}</li>{/each}
      </ul>
      {#if refusal}<p role="alert" class="no">{refusal}</p>{/if}
    </details>
  {/if}
</section>

<style>
  section {
    padding: 8px 14px;
    display: grid;
    gap: 4px;
  }
  h1 {
    font-size: 1.125rem;
    line-height: 1.2;
  }
  .loads {
    display: flex;
    gap: 0 8px;
    align-items: center;
    font-size: 0.9375rem;
  }
  ol,
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 8px;
    border-top: 1px solid var(--edge);
    padding: 2px 0;
    font-size: 1.375rem;
    line-height: 1.15;
  }
  ul li {
    font-size: 0.9375rem;
  }
  li .button {
    flex: none;
    white-space: nowrap;
  }
  @media (max-width: 1150px) {
    ol li {
      font-size: 1.125rem;
    }
  }
  .caution {
    background: #fff4cf;
    border-left: 6px solid var(--rust);
    padding: 2px 8px;
    font-size: 0.875rem;
  }
  .soft {
    font-size: 0.8125rem;
  }
  summary {
    cursor: pointer;
    min-height: 30px;
    color: var(--layout);
    text-decoration: underline;
  }
  table {
    border-collapse: collapse;
    width: 100%;
    font-size: 0.8125rem;
  }
  th {
    text-align: left;
    font-weight: 400;
    color: var(--ink-soft);
  }
  td,
  thead th {
    text-align: right;
    padding-left: 6px;
  }
  tbody tr {
    border-top: 1px solid var(--edge);
    height: 26px;
  }
  .no {
    color: var(--rust);
    font-weight: 700;
    font-size: 0.9375rem;
  }
</style>
