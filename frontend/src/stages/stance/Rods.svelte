<script lang="ts">
  // The rods in place of the dampers, eye to eye, with the rate of each spring at the wheel.
  import type { StanceView } from '$lib/api/client';
  import { CORNER_WORDS } from '$lib/marks';
  import Table from '$parts/form/Table.svelte';
  import { STANDS } from './texts';

  type Props = { stance: StanceView };
  let { stance }: Props = $props();
  type Column = keyof typeof STANDS.columns;
  const columns = Object.keys(STANDS.columns) as Column[];
  const head = ['', ...Object.values(STANDS.columns), STANDS.rate, STANDS.ratio];
</script>

<div>
  <Table {head} stacked>
    {#each stance.corners as c (c.corner)}
      {#each c.rods as rod, i (i)}
        <tr>
          <th scope="row">{CORNER_WORDS[c.corner]} <small>{rod.name}</small></th>
          {#each columns as key (key)}
            <td class="fig" data-name={STANDS.columns[key]} class:big={key === 'at_wanted'}
              >{rod[key] || STANDS.unknown}</td
            >
          {/each}
          <td class="fig" data-name={STANDS.rate}
            >{rod.rate || STANDS.unknown}{#if rod.rough}<small> {STANDS.rough} {rod.rough}</small>{/if}</td
          >
          <td class="fig" data-name={STANDS.ratio}>{rod.ratio || STANDS.unknown}</td>
        </tr>
      {:else}<tr><th scope="row">{CORNER_WORDS[c.corner]}</th><td colspan="7" class="soft">{STANDS.none}</td></tr
        >{/each}
    {/each}
  </Table>
</div>

<style>
  div {
    overflow: auto;
  }
  .big {
    font-size: 1.125rem;
  }
  small {
    color: var(--ink-soft);
    font-size: var(--type-label);
    display: block;
    line-height: 1.1;
  }
</style>
