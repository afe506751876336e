<script lang="ts">
  // One corner's spring at work: its rate at the wheel over travel beside the rough formula, its lengths, seats, and what ends the travel.
  import type { Corner, StanceView } from '$lib/api/client';
  import { CORNER_WORDS } from '$lib/marks';
  import Plot from '$parts/Plot.svelte';
  import Strip from './Strip.svelte';
  import { SPRINGS } from './texts';

  type Props = { stance: StanceView; corner: Corner; onpick: (corner: Corner) => void };
  let { stance, corner, onpick }: Props = $props();
  let row = $state(32);
  const one = $derived(stance.corners.find((c) => c.corner === corner)!);
  const spring = $derived(one.springs[0]);
  const lines = $derived(
    spring
      ? [
          { name: SPRINGS.true, values: spring.rate },
          ...(spring.rough === null
            ? []
            : [{ name: SPRINGS.rough, values: spring.travel.map(() => spring.rough), dashed: true }]),
        ]
      : [],
  );
</script>

<section class="card" aria-label={SPRINGS.plot}>
  <div class="pick" role="group" aria-label={SPRINGS.corner}>
    {#each stance.corners as c (c.corner)}<button
        type="button"
        class="button"
        aria-pressed={corner === c.corner}
        onclick={() => onpick(c.corner)}>{CORNER_WORDS[c.corner]}</button
      >{/each}
  </div>
  {#if one.problem}<p role="alert" class="no">{one.problem}</p>{/if}
  {#if spring}
    <div class="plot">
      <Plot
        label="{CORNER_WORDS[corner]}, {spring.name}: {SPRINGS.plot}, {spring.unit}"
        drive={spring.travel}
        driveName={SPRINGS.over}
        unit={spring.travel_unit}
        {lines}
        {row}
        onrow={(r) => (row = r)}
        onstep={(by) => (row = Math.min(Math.max(row + by, 0), spring.travel.length - 1))}
      />
    </div>
    <p class="now">
      {spring.travel[row]! >= 0 ? 'bump' : 'droop'}
      <b class="fig"
        >{Math.abs(spring.travel[row]!).toFixed(spring.travel_unit === 'mm' ? 1 : 3)} {spring.travel_unit}</b
      >: <b class="fig">{spring.rate[row]?.toFixed(1) ?? '—'} {spring.unit}</b>
    </p>
  {:else if !one.problem}<p>{SPRINGS.none}</p>{/if}
  <div class="two">
    {#if spring}<dl>
        {#each spring.lines as [what, much] (what)}<dt>{what}</dt>
          <dd class="fig">{much}</dd>{/each}
      </dl>{/if}
    {#if one.strip}<div>
        <h2>{SPRINGS.order}</h2>
        <Strip
          strip={one.strip}
          label={one.strip.says.join(' ')}
          height={190}
        />{#each one.strip.lines as [line, amiss] (line)}<p class="say" class:no={amiss}>
            {line}
          </p>{/each}
      </div>{/if}
  </div>
  {#if spring?.seats.length}
    <h2>{SPRINGS.seats}</h2>
    <table>
      <thead
        ><tr
          >{#each SPRINGS.seatColumns as name (name)}<th scope="col">{name}</th>{/each}</tr
        ></thead
      ><tbody
        >{#each spring.seats as [at, along, across, bow] (at)}<tr
            ><th scope="row">{at}</th><td class="fig">{along}</td><td class="fig">{across}</td><td class="fig">{bow}</td
            ></tr
          >{/each}</tbody
      >
    </table>
  {/if}
  {#if one.arms.length}<details>
      <summary>{SPRINGS.arms}</summary>
      <dl>
        {#each one.arms as [name, angle] (name)}<dt>{name}</dt>
          <dd class="fig">{angle}</dd>{/each}
      </dl>
    </details>{/if}
  <p class="caution">{SPRINGS.caution}</p>
</section>

<style>
  section {
    padding: 8px 14px;
    display: grid;
    gap: 8px;
  }
  .pick {
    display: flex;
  }
  .pick .button {
    border-radius: 0;
    margin-left: -1px;
    font-weight: 400;
  }
  .pick [aria-pressed='true'] {
    background: var(--layout);
    color: #fff;
    font-weight: 700;
  }
  .plot {
    display: grid;
    height: 260px;
  }
  .two {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 18px;
  }
  h2 {
    font-size: 1rem;
  }
  dl {
    display: grid;
    grid-template-columns: minmax(9em, 1fr) minmax(0, auto);
    gap: 2px 10px;
    margin: 0;
    align-content: start;
    font-size: 0.9375rem;
  }
  dt {
    color: var(--ink-soft);
  }
  dd {
    margin: 0;
    text-align: right;
  }
  table {
    border-collapse: collapse;
    width: 100%;
    font-size: 0.9375rem;
  }
  th {
    text-align: left;
    font-weight: 400;
  }
  thead th {
    color: var(--ink-soft);
    font-size: 0.8125rem;
  }
  tbody tr {
    border-top: 1px solid var(--edge);
    height: 30px;
  }
  .say {
    font-size: 0.875rem;
  }
  .no {
    color: var(--rust);
    font-weight: 700;
  }
  summary {
    cursor: pointer;
    min-height: 30px;
    color: var(--layout);
    text-decoration: underline;
  }
  .caution {
    background: #fff4cf;
    border-left: 6px solid var(--rust);
    padding: 2px 8px;
    font-size: 0.9375rem;
  }
</style>
