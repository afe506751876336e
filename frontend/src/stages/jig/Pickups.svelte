<script lang="ts">
  // Every pickup point against the plan: how far off, what that does to the finished car, and what to do about it.
  import type { JigView, Pickup } from '$lib/api/client';
  import Witness from '$parts/Witness.svelte';
  import type { Survey } from './survey.svelte';
  import { JIG } from './texts';

  type Props = { survey: Survey; view: JigView };
  let { survey, view }: Props = $props();

  const rank = (p: Pickup) =>
    ({ out: 0, 'too close to call': 1, holds: 3 })[p.verdict ?? 'holds'] + (p.verdict ? 0 : -1);
  const rows = $derived([...view.pickups].sort((a, b) => rank(a) - rank(b)));
  const chosen = $derived(
    view.pickups.find((p) => p.point === survey.lit && p.off) ??
      rows.find((p) => p.verdict === 'out') ??
      rows.find((p) => p.off),
  );
  const together = $derived(view.together.find((t) => t.of === chosen?.point.split('.')[0]));
</script>

<section class="card" aria-label={JIG.tabs.pickups}>
  <h2>{JIG.tabs.pickups} <small>{JIG.all(view.accepted, view.counted)}</small></h2>
  {#if chosen}
    <div class="one">
      <h3>
        <Witness state={chosen.verdict} size={26} />
        {chosen.say}
        {#if chosen.move}<b>· {JIG.back(chosen.move)}</b>{/if}
      </h3>
      <div class="two">
        <div>
          <h4>
            {JIG.does}{#if together}
              · {JIG.together.toLowerCase()}{/if}
          </h4>
          <table>
            <tbody
              >{#each chosen.effects as e (e.answer)}<tr
                  ><th scope="row">{e.label}</th><td class="fig">{e.say}</td><td class="fig soft"
                    >{together?.effects.find((t) => t.answer === e.answer)?.say ?? ''}</td
                  ></tr
                >{/each}</tbody
            >
          </table>
        </div>
        <div>
          <h4>{JIG.do}</h4>
          <ol class="options">
            {#each chosen.options as o (o.do)}<li><b>{o.do}</b> {o.say}</li>{/each}
          </ol>
        </div>
      </div>
    </div>
  {/if}
  <div class="scroll">
    <table>
      <thead
        ><tr
          ><th></th>{#each JIG.ways as way (way)}<th scope="col">{way}</th>{/each}<th scope="col">{JIG.u}</th><th
            scope="col"
            title={JIG.twin}>{JIG.twinShort}</th
          ><th></th></tr
        ></thead
      >
      <tbody>
        {#each rows as p (p.point)}
          <tr data-lit={p.point === chosen?.point || undefined}>
            <th scope="row"><button type="button" onclick={() => (survey.lit = p.point)}>{p.say}</button></th>
            {#if p.off}
              {#each p.say_off as off, i (i)}<td class="fig">{off}</td>{/each}<td class="fig soft"
                >{p.say_u.reduce((a, b) => (a.length > b.length || (a.length === b.length && a > b) ? a : b), '')}</td
              ><td class="fig soft" title="{JIG.twin}: {p.twin.join(', ')}"
                >{p.twin_most === null ? '' : p.twin[p.twin_most]}</td
              ><td>{p.verdict}</td>
            {:else}<td colspan={p.verdict ? 5 : 6} class="soft"
                >{p.stale ? JIG.since(p.stale) + '. ' : ''}{p.options[0]?.say}</td
              >{#if p.verdict}<td>{p.verdict}</td>{/if}{/if}
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  <p class="soft">{JIG.strength}</p>
</section>

<style>
  section {
    display: grid;
    grid-template-rows: auto auto minmax(0, 1fr) auto;
    min-height: 0;
    gap: 6px;
    padding-bottom: 8px;
  }
  h2 {
    font-size: 1.0625rem;
  }
  h2 small {
    font-weight: 400;
    color: var(--ink-soft);
    font-size: 0.8125rem;
  }
  h3 {
    font-size: 1rem;
    display: flex;
    gap: 8px;
    align-items: center;
  }
  h4 {
    margin: 0;
    font-size: 0.8125rem;
    font-weight: 400;
    color: var(--ink-soft);
  }
  .one {
    background: #f4f1e8;
    border-left: 6px solid var(--paint);
    padding: 6px 10px;
    margin-left: -6px;
  }
  .two {
    display: grid;
    grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr);
    gap: 26px;
  }
  .options {
    margin: 0;
    padding-left: 22px;
    font-size: 0.875rem;
  }
  .scroll {
    overflow: auto;
  }
  table {
    border-collapse: collapse;
    width: 100%;
    font-size: 0.875rem;
  }
  th {
    text-align: left;
    font-weight: 400;
  }
  .one th {
    font-size: 0.8125rem;
    white-space: nowrap;
  }
  .one td {
    font-size: 0.8125rem;
  }
  thead th {
    position: sticky;
    top: 0;
    background: var(--card);
    color: var(--ink-soft);
    font-size: 0.8125rem;
    text-align: right;
  }
  td {
    text-align: right;
    white-space: nowrap;
    padding-left: 8px;
  }
  td[colspan] {
    text-align: left;
    white-space: normal;
  }
  .scroll tbody tr {
    border-top: 1px solid var(--edge);
  }
  .scroll button {
    border: 0;
    background: none;
    min-height: 32px;
    padding: 0;
    cursor: pointer;
    text-align: left;
  }
  .scroll button:hover {
    text-decoration: underline;
  }
  [data-lit] {
    background: linear-gradient(90deg, #f9ecc4, transparent);
    box-shadow: -6px 0 var(--paint);
  }
  @media (pointer: coarse) {
    .scroll button {
      min-height: var(--touch);
    }
  }
</style>
