<script lang="ts">
  // What one turn of each perch does to all four corners, and what of that was learned from this car.
  import type { StanceView } from '$lib/api/client';
  import type { Car } from '$lib/car.svelte';
  import { CORNER_WORDS } from '$lib/marks';
  import Table from '$parts/form/Table.svelte';
  import { STANCE } from './texts';

  type Props = { car: Car; stance: StanceView };
  let { car, stance }: Props = $props();
  const head = $derived(['', ...stance.corners.map((c) => CORNER_WORDS[c.corner]), '']);
  const learned = $derived(stance.corners.filter((c) => c.learned));
  let refusal = $state('');
  async function unlearn(adjuster: string): Promise<void> {
    const fate = await car.ask({ kind: 'unlearned', version: 1, adjuster }, STANCE.undo);
    refusal = fate.fate === 'refused' ? fate.sentence : '';
  }
</script>

<details>
  <summary
    >{STANCE.does}{#if learned.length}&nbsp;· {STANCE.learned}{/if}</summary
  >
  <p class="soft">{STANCE.lift} {STANCE.next}</p>
  <Table {head} small>
    {#each stance.corners as c (c.corner)}
      <tr
        ><th scope="row">{CORNER_WORDS[c.corner]}</th>{#each c.does_short as said, i (i)}<td class="fig">{said}</td
          >{/each}</tr
      >
    {/each}
  </Table>
  <ul class="plain">
    {#each learned as c (c.corner)}
      <li>
        {c.learned}
        <button type="button" class="button" onclick={() => void unlearn(c.learned_of)}>{STANCE.undo}</button>
      </li>
    {:else}<li class="soft">{STANCE.learnedNone}</li>{/each}
  </ul>
  {#if refusal}<p role="alert" class="no">{refusal}</p>{/if}
</details>

<style>
  summary {
    cursor: pointer;
    align-content: center;
    color: var(--layout);
    text-decoration: underline;
  }
  li {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 8px;
    border-top: 1px solid var(--edge);
    font-size: 0.9375rem;
  }
</style>
