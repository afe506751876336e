<script lang="ts">
  // What anti-dive, anti-lift and anti-squat are reckoned with.
  import Choice from '$parts/form/Choice.svelte';
  import Row from '$parts/form/Row.svelte';
  import PlanFigure from './PlanFigure.svelte';
  import { theSheet } from './sheet.svelte';
  import { PLAN } from './texts';

  const { draft } = $derived(theSheet());
  const loads = $derived(draft.loads);
  const begin = () =>
    (draft.loads = { height: 450, front_share: 0.6, brakes: 'outboard', drive: 'inboard', driven: 'rear' });
</script>

<h3>{PLAN.loads} <small>{PLAN.loadsSoft}</small></h3>
{#if loads}
  <Row cols={5} end>
    <PlanFigure
      label={PLAN.cg}
      bind:value={() => loads.height, (v) => (loads.height = v ?? 0)}
      kind="length"
      at="loads.height"
    />
    <PlanFigure
      label={PLAN.share}
      bind:value={() => Math.round(loads.front_share * 1000) / 10, (v) => (loads.front_share = (v ?? 0) / 100)}
      kind="number"
      at="loads.front_share"
    />
    <Choice label={PLAN.brakes} options={PLAN.acts} bind:value={loads.brakes!} />
    <Choice label={PLAN.drive} options={PLAN.acts} bind:value={loads.drive!} />
    <Choice label={PLAN.driven} options={PLAN.drivenEnds} bind:value={loads.driven!} />
    <button type="button" class="button" onclick={() => (draft.loads = null)}>{PLAN.takeLoads}</button>
  </Row>
{:else}<p><button type="button" class="button" onclick={begin}>{PLAN.giveLoads}</button></p>{/if}

<style>
  h3 {
    font-size: 1rem;
  }
  small {
    font-weight: 400;
    color: var(--ink-soft);
    font-size: var(--type-label);
  }
</style>
