<script lang="ts">
  // Every figure at the reading line, left and right, and with something moved; the one plotted is picked here.
  import type { Bench } from './bench.svelte';
  import { signed } from './numbers';
  import { TRAVEL } from './texts';

  type Props = { bench: Bench };
  let { bench }: Props = $props();

  const drive = $derived(bench.planned?.drive[bench.row] ?? 0);
  const rows = $derived(
    (bench.planned?.curves ?? []).map((curve) => {
      const after = bench.moved?.curves.find((c) => c.answer === curve.answer);
      const built = bench.built?.curves.find((c) => c.answer === curve.answer);
      return {
        curve,
        built: [built?.left[bench.row] ?? null, built?.right?.[bench.row] ?? null] as const,
        left: curve.left[bench.row] ?? null,
        right: curve.right?.[bench.row] ?? null,
        after: after?.left[bench.row] ?? null,
      };
    }),
  );
</script>

<section class="card" aria-label={TRAVEL.at(signed(drive, 1))}>
  <h2>{TRAVEL.at(`${signed(drive, 1)} ${bench.planned?.unit ?? ''}`)} <small>{TRAVEL.keys}</small></h2>
  {#if bench.planned?.warnings.length}{#each bench.planned.warnings as warning (warning)}<p class="warn">
        {warning}
      </p>{/each}{/if}
  <div class="scroll">
    <table>
      <thead
        ><tr
          ><th scope="col"><span class="hidden">Figure</span></th><th scope="col">{TRAVEL.left}</th><th scope="col"
            >{TRAVEL.right}</th
          >{#if bench.built}<th scope="col" class="made" colspan="2">{TRAVEL.built}</th>{/if}{#if bench.moved}<th
              scope="col"
              class="if">{TRAVEL.changed}, {TRAVEL.left}</th
            >{/if}</tr
        ></thead
      >
      <tbody>
        {#each rows as { curve, left, right, after, built } (curve.answer)}
          <tr data-picked={curve.answer === bench.curve?.answer || undefined}>
            <th scope="row"
              ><button
                type="button"
                aria-pressed={curve.answer === bench.curve?.answer}
                onclick={() => bench.pick(curve.answer)}>{curve.label}</button
              >{#if curve.unit && curve.unit !== '°'}<small>{curve.unit}</small>{/if}</th
            >
            <td class="fig" colspan={curve.right ? 1 : 2}
              >{signed(left, curve.digits)}{curve.unit === '°' ? '°' : ''}</td
            >
            {#if curve.right}<td class="fig">{signed(right, curve.digits)}{curve.unit === '°' ? '°' : ''}</td>{/if}
            {#if bench.built}<td class="fig made" colspan={curve.right ? 1 : 2}
                >{signed(built[0], curve.digits)}{curve.unit === '°' ? '°' : ''}</td
              >{#if curve.right}<td class="fig made">{signed(built[1], curve.digits)}{curve.unit === '°' ? '°' : ''}</td
                >{/if}{/if}
            {#if bench.moved}<td class="fig if"
                >{signed(after, curve.digits)}{curve.unit === '°' ? '°' : ''}
                {#if after !== null && left !== null && Math.abs(after - left) >= 10 ** -curve.digits / 2}<small
                    >{signed(after - left, curve.digits, true)}</small
                  >{/if}</td
              >{/if}
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
</section>

<style>
  section {
    display: grid;
    grid-template-rows: auto auto minmax(0, 1fr);
    min-height: 0;
    padding-bottom: 0;
  }
  h2 {
    font-size: 1.0625rem;
  }
  h2 small,
  td small,
  th small {
    font-weight: 400;
    color: var(--ink-soft);
    font-size: 0.8125rem;
  }
  .warn {
    color: var(--rust);
    font-size: 0.8125rem;
  }
  .scroll {
    overflow: auto;
    grid-row: 3;
  }
  table {
    border-collapse: collapse;
    width: 100%;
  }
  thead th {
    position: sticky;
    top: 0;
    background: var(--card);
    text-align: right;
    font-weight: 400;
    color: var(--ink-soft);
    font-size: 0.8125rem;
  }
  tbody tr {
    border-top: 1px solid var(--edge);
  }
  tbody th {
    text-align: left;
    font-weight: 400;
  }
  tbody th small {
    margin-left: 6px;
  }
  button {
    border: 0;
    background: none;
    min-height: 34px;
    padding: 0 6px 0 0;
    text-align: left;
    cursor: pointer;
    max-width: calc(100% - 46px);
    line-height: 1.15;
  }
  button:hover {
    text-decoration: underline;
  }
  td {
    text-align: right;
    white-space: nowrap;
    padding-left: 10px;
  }
  [data-picked] {
    background: linear-gradient(90deg, #f9ecc4, transparent);
    box-shadow: -6px 0 var(--paint);
  }
  [data-picked] button {
    font-weight: 700;
  }
  .if {
    color: #6b4e00;
  }
  .made {
    color: #14532d;
  }
  @media (pointer: coarse) {
    button {
      min-height: var(--touch);
    }
  }
</style>
