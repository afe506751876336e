<script lang="ts">
  // The marks of the four corners, kind by kind.
  import type { CarView, Corner, MarkView } from '$lib/api/client';
  import { CORNER_KINDS, cornerName, kindsAt, MARK_KINDS } from '$lib/kinds';
  import { CORNER_WORDS, CORNERS, markOf } from '$lib/marks';
  import MarkCell from './MarkCell.svelte';

  type Props = { view: CarView; onpick: (corner: Corner, mark: MarkView) => void };
  let { view, onpick }: Props = $props();
  // What is seldom wanted is shown where it is.
  const kinds = $derived(
    CORNER_KINDS.filter(
      (kind) => !MARK_KINDS[kind]!.only_aimed || MARK_KINDS[kind]!.at.some((c) => markOf(view, `${c}.${kind}`).aim),
    ),
  );
</script>

<table>
  <thead
    ><tr
      ><td></td>{#each CORNERS as corner (corner)}<th scope="col">{CORNER_WORDS[corner]}</th>{/each}</tr
    ></thead
  >
  <tbody data-many={kinds.length > 3 || undefined}>
    {#each kinds as kind (kind)}
      <tr>
        <th scope="row">{cornerName(kind)}</th>
        {#each CORNERS as corner (corner)}
          <td data-corner={CORNER_WORDS[corner]}>
            {#if kindsAt(corner).includes(kind)}
              {@const mark = markOf(view, `${corner}.${kind}`)}
              <MarkCell {mark} label="{CORNER_WORDS[corner]} {kind}" onpick={() => onpick(corner, mark)} />
            {/if}
          </td>
        {/each}
      </tr>
    {/each}
  </tbody>
</table>

<style>
  table {
    border-collapse: collapse;
    width: 100%;
    margin-top: 6px;
    table-layout: fixed;
  }
  thead th {
    font-weight: 400;
    color: var(--ink-soft);
    text-align: left;
    font-size: var(--type-small);
    padding: 4px 2px;
  }
  th:first-child {
    width: 82px;
  }
  tbody th {
    text-align: left;
    font-weight: 700;
  }
  tbody tr {
    border-top: 1px solid var(--edge);
  }
  [data-many] td {
    height: 62px;
  }
  td {
    padding: 4px 2px;
    height: 84px;
    vertical-align: middle;
  }
  thead td {
    height: auto;
    width: 82px;
  }
  @media (max-width: 700px) {
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
      padding: 6px 0;
    }
    tbody th {
      grid-column: 1 / -1;
    }
    td,
    [data-many] td {
      height: auto;
      vertical-align: top;
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
