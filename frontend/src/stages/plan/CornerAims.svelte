<script lang="ts">
  // What is wanted at each corner, kind by kind.
  import { CORNER_KINDS, cornerName, kindsAt } from '$lib/kinds';
  import { CORNER_WORDS, CORNERS } from '$lib/marks';
  import AimPair from './AimPair.svelte';
</script>

<table>
  <thead
    ><tr
      ><td></td>{#each CORNERS as c (c)}<th scope="col">{CORNER_WORDS[c]}</th>{/each}</tr
    ></thead
  >
  <tbody>
    {#each CORNER_KINDS as kind (kind)}
      <tr>
        <th scope="row">{cornerName(kind, 'label')}</th>
        {#each CORNERS as c (c)}<td data-corner={CORNER_WORDS[c]}
            >{#if kindsAt(c).includes(kind)}<AimPair mark="{c}.{kind}" name="{CORNER_WORDS[c]} {kind}" />{/if}</td
          >{/each}
      </tr>
    {/each}
  </tbody>
</table>

<style>
  table {
    width: 100%;
    border-collapse: collapse;
    table-layout: fixed;
  }
  th {
    text-align: left;
    font-weight: 400;
    font-size: var(--type-small);
    color: var(--ink-soft);
  }
  tbody th,
  thead td {
    width: 96px;
    color: var(--ink);
    font-weight: 700;
  }
  td {
    padding: 3px 10px 3px 0;
    vertical-align: top;
  }
  @media (max-width: 1000px) {
    table,
    tbody {
      display: block;
    }
    thead {
      display: none;
    }
    tr {
      display: grid;
      grid-template-columns: 1fr 1fr;
      border-top: 1px solid var(--edge);
      padding: 4px 0;
    }
    tbody th {
      grid-column: 1 / -1;
      width: auto;
    }
    td:empty {
      display: none;
    }
    td::before {
      content: attr(data-corner);
      color: var(--ink-soft);
      font-size: var(--type-small);
    }
  }
</style>
