<script lang="ts">
  // The points of an end by station, offset and height: what the layout needs first, then the steering box, then the rest.
  import type { LinkagePoints } from './linkage-points.svelte';
  import PlanFigure from './PlanFigure.svelte';
  import { PLAN } from './texts';

  type Props = { held: LinkagePoints };
  let { held }: Props = $props();
  const WAYS = [PLAN.station, PLAN.offset, PLAN.height];
  const groups = $derived([
    ['', held.names.needed],
    [PLAN.boxPoints, held.names.box],
    [PLAN.more, held.names.more],
  ] as const);
</script>

<table>
  <thead
    ><tr
      ><th scope="col">{PLAN.point}</th>{#each WAYS as way (way)}<th scope="col">{way}</th>{/each}</tr
    ></thead
  >
  {#each groups as [title, names], i (i)}
    <tbody>
      {#if title && names.length}<tr><th colspan="4" class="soft">{title}</th></tr>{/if}
      {#each names as name (name)}
        {@const light = () => (held.lit = name)}
        <tr data-lit={held.lit === name || undefined} onfocusin={light} onpointerenter={light}>
          <th scope="row">{name.replaceAll('.', ' ')}</th>
          {#each WAYS as way, axis (axis)}
            <td data-name={way}
              ><PlanFigure
                bare
                label="{name}, {way}"
                value={held.value(name, axis)}
                kind="length"
                amiss={axis === 0 && Boolean(held.sheet.at(`points.${held.key(name)}`))}
                onchange={(v) => held.set(name, axis, v)}
              /></td
            >
          {/each}
        </tr>
      {/each}
    </tbody>
  {/each}
</table>

<style>
  table {
    border-collapse: collapse;
    width: 100%;
    table-layout: fixed;
  }
  th {
    text-align: left;
    font-weight: 400;
    font-size: var(--type-small);
    padding: 0 6px 0 0;
  }
  thead th {
    color: var(--ink-soft);
    font-size: var(--type-label);
  }
  td {
    padding: 1px 3px 1px 0;
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
      grid-template-columns: repeat(3, minmax(0, 1fr));
    }
    tr th {
      grid-column: 1 / -1;
    }
    td::before {
      content: attr(data-name);
      color: var(--ink-soft);
      font-size: var(--type-small);
    }
  }
  [data-lit] th {
    font-weight: 700;
  }
</style>
