<script lang="ts">
  // What a stage wants of the plan and does not have: asked for at the stage's own tape.
  import { api, type Wanting } from '$lib/api/client';
  import { until } from '$lib/api/until';
  import { capital } from '$lib/kinds';
  import { HERE } from '../texts';
  import type { Here } from './here.svelte';

  type Props = { here: Here; stage: Wanting['stage'] };
  let { here, stage }: Props = $props();
  let rows = $state.raw<Wanting[]>([]);
  $effect(() => {
    if (!here.car.view?.plan_number) return;
    return until(
      () => api.wantingOf(here.car.slug),
      (found) => (rows = found),
    );
  });
  const open = $derived(rows.filter((row) => row.needed && row.stage === stage && !here.passed.has(row.path)));
  const first = $derived(open[0]);
</script>

{#if first && !here.path}
  <aside aria-label={HERE.label}>
    <p><b>{HERE.label}:</b> {capital(first.what)}. <span class="soft">{capital(first.step)}.</span></p>
    <button type="button" class="button" onclick={() => here.ask(first.path)}>{HERE.give}</button>
    <button type="button" class="button" onclick={() => here.pass(first.path)}
      >{open.length > 1 ? HERE.next(open.length - 1) : HERE.later}</button
    >
  </aside>
{/if}

<style>
  aside {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
    border-left: 4px solid var(--paint);
    padding: 2px 0 2px 10px;
  }
  p {
    flex: 1 1 260px;
  }
</style>
