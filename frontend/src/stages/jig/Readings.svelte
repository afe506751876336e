<script lang="ts">
  // The readings of the frame, newest first: how each agrees with the rest, and which is wrong.
  import type { JigView } from '$lib/api/client';
  import type { Survey } from './survey.svelte';
  import { JIG } from './texts';

  type Props = { survey: Survey; view: JigView };
  let { survey, view }: Props = $props();
  let refusal = $state('');
  const sorted = $derived(
    [...view.readings].sort(
      (a, b) => Number(!!b.wrong) - Number(!!a.wrong) || Number(b.counts) - Number(a.counts) || b.number - a.number,
    ),
  );
</script>

<section class="card" aria-label={JIG.tabs.readings}>
  <h2>{JIG.tabs.readings} <small>{view.sigma0 === null ? '' : JIG.sigma(view.sigma0, view.dof)}</small></h2>
  {#if refusal}<p role="alert">{refusal}</p>{/if}
  {#if !view.readings.length}<p class="soft">{JIG.noReadings}</p>{/if}
  <ul>
    {#each sorted as r (r.number)}
      <li data-wrong={r.wrong || undefined} data-past={!r.counts || undefined}>
        <button type="button" class="what" onclick={() => survey.ask(r.reading, r.points)}>{r.say}</button>
        <span class="fig">{r.residual}</span>
        <small
          >{r.wrong ||
            (!r.counts
              ? JIG.stale
              : r.mute
                ? JIG.mute
                : (r.redundancy ?? 0) > 0.01
                  ? `${JIG.checked} ${Math.round((r.redundancy ?? 0) * 100)} %`
                  : JIG.unchecked)}</small
        >
        <button type="button" class="button" onclick={async () => (refusal = await survey.strike(r.id))}
          >{JIG.strikeOut}</button
        >
      </li>
    {/each}
  </ul>
</section>

<style>
  section {
    min-height: 0;
    overflow: auto;
  }
  h2 {
    font-size: 1.0625rem;
  }
  h2 small {
    font-weight: 400;
    color: var(--ink-soft);
    font-size: 0.8125rem;
  }
  ul {
    list-style: none;
    margin: 6px 0 0;
    padding: 0;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 64px 110px auto;
    gap: 8px;
    align-items: center;
    border-top: 1px solid var(--edge);
    font-size: 0.875rem;
  }
  .what {
    border: 0;
    background: none;
    text-align: left;
    cursor: pointer;
    padding: 2px 0;
    line-height: 1.2;
  }
  .what:hover {
    text-decoration: underline;
  }
  .fig {
    text-align: right;
  }
  small {
    color: var(--ink-soft);
    font-size: 0.8125rem;
  }
  .button {
    min-height: 34px;
    font-weight: 400;
    padding: 0 8px;
    font-size: 0.875rem;
  }
  [data-wrong] {
    color: var(--rust);
    font-weight: 700;
  }
  [data-wrong] small {
    color: var(--rust);
  }
  [data-past] .what,
  [data-past] .fig {
    opacity: 0.6;
  }
  [role='alert'] {
    color: var(--rust);
    font-weight: 700;
  }
  @media (pointer: coarse) {
    .button {
      min-height: var(--touch);
    }
  }
</style>
