<script lang="ts">
  // Every figure at the reading line, left and right, as built, and with something moved; the one plotted is picked here.
  import Card from '$parts/form/Card.svelte';
  import Panel from '$parts/frame/Panel.svelte';
  import type { Bench } from './bench.svelte';
  import FigureRow from './FigureRow.svelte';
  import { signed } from './numbers';
  import { TRAVEL } from './texts';

  type Props = { bench: Bench };
  let { bench }: Props = $props();
  const drive = $derived(bench.planned?.drive[bench.row] ?? 0);
  const find = (study: Bench['planned'], answer: string) => study?.curves.find((c) => c.answer === answer);
</script>

<Panel>
  <Card
    title={TRAVEL.at(`${signed(drive, 1)} ${bench.planned?.unit ?? ''}`)}
    beside={TRAVEL.keys}
    label={TRAVEL.at(signed(drive, 1))}
  >
    {#each bench.planned?.warnings ?? [] as warning, i (i)}<p class="no">{warning}</p>{/each}
    <table>
      <thead
        ><tr>
          <th scope="col"><span class="hidden">Figure</span></th>
          <th scope="col">{TRAVEL.left}</th>
          <th scope="col">{TRAVEL.right}</th>
          {#if bench.built}<th scope="col" class="made" colspan="2">{TRAVEL.built}</th>{/if}
          {#if bench.moved}<th scope="col" class="if">{TRAVEL.changed}, {TRAVEL.left}</th>{/if}
        </tr></thead
      >
      <tbody>
        {#each bench.planned?.curves ?? [] as curve, i (i)}
          <FigureRow
            {curve}
            built={bench.built ? (find(bench.built, curve.answer) ?? null) : undefined}
            moved={bench.moved ? (find(bench.moved, curve.answer) ?? null) : undefined}
            row={bench.row}
            picked={curve.answer === bench.curve?.answer}
            onpick={() => bench.pick(curve.answer)}
          />
        {/each}
      </tbody>
    </table>
  </Card>
</Panel>

<style>
  table {
    border-collapse: collapse;
    width: 100%;
  }
  th {
    position: sticky;
    top: 0;
    background: var(--card);
    text-align: right;
    font-weight: 400;
    color: var(--ink-soft);
    font-size: var(--type-label);
  }
  .if {
    color: var(--paint-ink);
  }
  .made {
    color: var(--built-ink);
  }
</style>
