<script lang="ts">
  // At the end of the rule: who measures, the log, the units; and anything amiss with server or storage instead.
  import type { Car } from '$lib/car.svelte';
  import { UNIT_WORDS } from '$lib/marks';
  import { outbox } from '$lib/outbox.svelte';
  import { link } from '$lib/router.svelte';
  import { signAs, who } from '$lib/shelf';
  import { FRAME } from './texts';

  type Props = { car: Car | undefined; base: string; here: string };
  let { car, base, here }: Props = $props();
  const waiting = $derived(outbox.rows.length);
  const stuck = $derived(car?.refused.length ?? 0);
  let name = $state(who());
  const amiss = $derived.by(() => {
    if (outbox.where !== 'shelf') {
      const head = `${outbox.away ? `${FRAME.away}. ` : ''}${FRAME.full}`;
      return { head, more: FRAME.keptWhere[outbox.where](waiting) };
    }
    if (outbox.away) return { head: FRAME.away, more: waiting ? FRAME.kept(waiting) : '' };
    return null;
  });
  // What is not answered at once is said to be under way: on a long log a revised plan takes some seconds.
  const LATE_MS = 800;
  let late = $state(false);
  const under = $derived(outbox.rows.find((row) => !row.refusal)?.entry.id);
  $effect(() => {
    late = false;
    if (!under) return;
    const timer = setTimeout(() => (late = true), LATE_MS);
    return () => clearTimeout(timer);
  });
</script>

<div data-bare={!car || undefined}>
  {#if amiss}<p role="status"><b>{amiss.head}</b> {amiss.more}</p>
  {:else if stuck}
    <p role="status"><b>{FRAME.refused(stuck)}</b> <a href="{base}/log" use:link>{FRAME.look}</a></p>
  {:else}
    {#if car}<a href="{base}/log" use:link aria-current={here === 'log' ? 'page' : undefined}>{FRAME.log}</a>{/if}
    <label>
      <span class="hidden">{FRAME.who}</span>
      <input bind:value={name} onchange={() => signAs(name)} placeholder={FRAME.who} maxlength="80" />
    </label>
    <!-- Beside the links, which may have the focus; where the unit stands. -->
    {#if late}<p role="status"><b>{FRAME.working}</b></p>{:else if car?.view}<small
        >{UNIT_WORDS[car.view.plan.units.system ?? 'mm']}</small
      >{/if}
  {/if}
</div>

<style>
  div {
    flex: 1;
    min-width: 0;
    padding: 4px 12px;
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 0 12px;
    overflow: hidden;
    align-content: center;
    align-items: center;
    justify-items: end;
    color: var(--ink-soft);
    font-size: var(--type-small);
  }
  [data-bare] {
    grid-template-columns: 1fr;
  }
  a {
    min-height: var(--touch);
    min-width: var(--touch);
    display: inline-flex;
    align-items: center;
    font-size: 0.95rem;
    color: var(--ink);
  }
  input {
    width: 100%;
    max-width: 120px;
    border: 0;
    border-bottom: 1px dashed var(--steel-dark);
    background: none;
    min-height: var(--touch);
    padding: 2px;
    text-align: right;
  }
  small {
    grid-column: 1 / -1;
    white-space: nowrap;
  }
  p {
    grid-column: 1 / -1;
    color: var(--rust);
    line-height: 1.15;
    text-align: right;
  }
  b {
    display: block;
  }
  @media (max-width: 1200px) {
    div {
      flex: none;
      width: 170px;
    }
  }
  @media (max-width: 1000px) {
    div {
      flex: 1 1 100%;
      padding: 0 14px;
    }
    div > :not(p) {
      display: none;
    }
    p {
      text-align: left;
      padding-bottom: 6px;
    }
  }
</style>
