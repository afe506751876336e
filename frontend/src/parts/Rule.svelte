<script lang="ts">
  // The way through the job: a steel rule, one inch a stage; paint on its edge shows how much of each stage holds.
  import type { Car } from '$lib/car.svelte';
  import { UNIT_WORDS } from '$lib/marks';
  import { outbox } from '$lib/outbox.svelte';
  import { link } from '$lib/router.svelte';
  import { signAs, who } from '$lib/shelf';
  import { FRAME, STAGES } from './texts';

  type Props = { car?: Car; here?: string };
  let { car, here = '' }: Props = $props();

  const INCH = 128;
  const TICKS = 16;
  const view = $derived(car?.view ?? null);
  const base = $derived(car ? `/cars/${car.slug}` : '');
  const waiting = $derived(outbox.rows);
  const stuck = $derived(car?.refused.length ?? 0);
  let name = $state(who());
  const keep = () => signAs(name);
  const tick = (i: number) => (i % TICKS === 0 ? 26 : i % (TICKS / 2) === 0 ? 17 : i % (TICKS / 4) === 0 ? 12 : 8);
</script>

<header class="noprint" data-bare={!car || undefined}>
  <a class="mark" href={base || '/'} use:link>
    {FRAME.product}<small>{view ? view.plan.name : FRAME.tagline}</small>
  </a>
  {#if car}
    <nav aria-label={FRAME.rule}>
      <svg width={INCH * STAGES.length + 4} height="64" aria-hidden="true">
        {#each STAGES as stage, s (stage.name)}
          <rect class="paint" x={2 + s * INCH} y="56" width={INCH * (view?.progress[stage.name] ?? 0)} height="7" />
        {/each}
        {#each { length: STAGES.length * TICKS + 1 }, i}
          <path class="tick" data-inch={i % TICKS === 0 || undefined} d="M{2 + (i * INCH) / TICKS} 63V{63 - tick(i)}" />
        {/each}
      </svg>
      {#each STAGES as stage, s (stage.name)}
        {@const part = view?.progress[stage.name]}
        {@const title = part === undefined ? stage.measures : FRAME.held(part, stage.measures)}
        {#if stage.path}
          <a
            style:left="{8 + s * INCH}px"
            href="{base}/{stage.path}"
            use:link
            aria-current={here === stage.path ? 'page' : undefined}
            {title}>{stage.name}</a
          >
        {:else}
          <span style:left="{8 + s * INCH}px" title={title ? `${title} · ${FRAME.later}` : FRAME.later}
            >{stage.name}</span
          >
        {/if}
      {/each}
    </nav>
  {/if}
  <div class="side">
    {#if outbox.nowhere && (waiting.length || outbox.away)}
      <p class="away" role="status">
        <b>{outbox.away ? `${FRAME.away}. ` : ''}{FRAME.nowhere}</b>
        {FRAME.nowhereWhat(waiting.length)}
      </p>
    {:else if outbox.away}
      <p class="away" role="status"><b>{FRAME.away}</b> {waiting.length ? FRAME.kept(waiting.length) : ''}</p>
    {:else if outbox.nowhere}
      <p class="away" role="status"><b>{FRAME.nowhere}</b> {FRAME.nowhereWhat(0)}</p>
    {:else if car && stuck}
      <p class="away" role="status"><b>{FRAME.refused(stuck)}</b> <a href="{base}/log" use:link>{FRAME.look}</a></p>
    {:else}
      {#if car}<a href="{base}/log" use:link aria-current={here === 'log' ? 'page' : undefined}>{FRAME.log}</a>{/if}
      <label
        ><span class="hidden">{FRAME.who}</span><input
          bind:value={name}
          onchange={keep}
          placeholder={FRAME.who}
          maxlength="80"
        /></label
      >
      {#if view}<small>{UNIT_WORDS[view.plan.units.system ?? 'mm']}</small>{/if}
    {/if}
  </div>
</header>

<style>
  header {
    height: 64px;
    background: linear-gradient(#eceff2, #cfd4d9);
    border-bottom: 2px solid var(--steel-core);
    display: flex;
    align-items: stretch;
  }
  .mark {
    flex: none;
    width: 178px;
    padding: 9px 14px;
    font-weight: 700;
    font-size: 1.2rem;
    line-height: 1.1;
    color: var(--ink);
    text-decoration: none;
  }
  .mark small {
    display: block;
    font-weight: 400;
    font-size: var(--type-small);
    color: var(--ink-soft);
    margin-top: 4px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  nav {
    position: relative;
    flex: none;
    width: 900px;
    overflow: hidden;
  }
  nav svg {
    position: absolute;
    inset: 0;
  }
  nav a,
  nav span {
    position: absolute;
    top: 0;
    height: 44px;
    padding-top: 8px;
    min-width: 110px;
    color: var(--ink);
    text-decoration: none;
    font-size: 0.95rem;
  }
  nav span {
    color: var(--ink-soft);
    opacity: 0.75;
  }
  nav a[aria-current] {
    font-weight: 700;
    text-decoration: underline;
    text-decoration-thickness: 3px;
    text-decoration-color: var(--paint);
    text-underline-offset: 5px;
  }
  .tick {
    stroke: var(--steel-dark);
    stroke-width: 1;
  }
  .tick[data-inch] {
    stroke-width: 2;
  }
  .paint {
    fill: var(--paint);
    opacity: 0.9;
  }
  .side {
    flex: 1;
    min-width: 0;
    padding: 4px 12px;
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 0 12px;
    align-content: center;
    align-items: center;
    justify-items: end;
    color: var(--ink-soft);
    font-size: var(--type-small);
  }
  .side a {
    min-height: 30px;
    display: inline-flex;
    align-items: center;
    font-size: 0.95rem;
    color: var(--ink);
  }
  .side input {
    width: 100%;
    max-width: 120px;
    border: 0;
    border-bottom: 1px dashed var(--steel-dark);
    background: none;
    padding: 2px;
    text-align: right;
  }
  .side small {
    grid-column: 1 / -1;
    white-space: nowrap;
  }
  .away {
    grid-column: 1 / -1;
    color: var(--rust);
    line-height: 1.15;
    text-align: right;
  }
  .away b {
    display: block;
  }
  [data-bare] .mark {
    width: auto;
  }
  [data-bare] .side {
    grid-template-columns: 1fr;
  }
  @media (max-width: 1200px) {
    nav {
      flex: 1 1 0;
      width: auto;
    }
    .mark {
      width: 150px;
    }
    .side {
      flex: none;
      width: 170px;
    }
  }
</style>
