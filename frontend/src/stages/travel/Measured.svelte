<script lang="ts">
  // Points as they were measured on the car: from then on the curves are drawn as planned and as built.
  import { api, type Plan, Refused } from '$lib/api/client';
  import type { Car } from '$lib/car.svelte';
  import { TRAVEL } from './texts';

  type Props = { car: Car; plan: Plan; onclose: () => void };
  let { car, plan, onclose }: Props = $props();

  const inches = $derived(plan.units.system !== 'mm');
  let text = $state('');
  let sure = $state('');
  let refusal = $state('');
  let unusual = $state(false); // asked about once; sent again, it is kept

  async function keep(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    refusal = '';
    try {
      const points = await api.points(text, plan.units as Parameters<typeof api.points>[1]);
      const { value } = await api.read(sure, 'length', plan.units as Parameters<typeof api.read>[2]);
      const fate = await car.ask(
        { kind: 'surveyed', version: 1, points, expanded: value, words: '', confirmed: unusual },
        TRAVEL.measure,
      );
      if (fate.fate !== 'refused') return onclose();
      unusual = fate.code === 'unusual_value';
      refusal = fate.sentence;
    } catch (error) {
      refusal =
        error instanceof Refused
          ? error.problems.map((p) => `${p.path}: ${p.sentence}`).join(' ') || error.message
          : (error as Error).message;
    }
  }
</script>

<form class="card" onsubmit={keep} aria-label={TRAVEL.measure}>
  <h2>{TRAVEL.measure} <small>{TRAVEL.measureSoft}</small></h2>
  <label
    >{TRAVEL.places}<textarea
      bind:value={text}
      oninput={() => (unusual = false)}
      rows="4"
      placeholder={inches ? 'LF.lower.front, 7 1/8, 9 5/16, 6' : 'LF.lower.front, 181, 236.5, 152'}></textarea></label
  >
  <div class="row">
    <label
      >{TRAVEL.sure}<input
        class="fig"
        bind:value={sure}
        maxlength="40"
        placeholder={inches ? '1/64' : '0.5'}
        autocomplete="off"
      /></label
    >
    <button type="button" class="button" onclick={onclose}>{TRAVEL.leave}</button>
    <button class="button" data-main disabled={!text.trim() || !sure.trim()}>{TRAVEL.keep}</button>
  </div>
  {#if refusal}<p role="alert">{refusal}</p>{/if}
</form>

<style>
  form {
    display: grid;
    gap: 6px;
    align-content: start;
    padding-block: 10px;
  }
  h2 {
    font-size: 1rem;
  }
  h2 small {
    font-weight: 400;
    color: var(--ink-soft);
    font-size: 0.8125rem;
  }
  .row {
    display: grid;
    grid-template-columns: 1fr auto auto;
    gap: 10px;
    align-items: end;
  }
  label {
    display: grid;
    color: var(--ink-soft);
    font-size: 0.8125rem;
  }
  textarea,
  input {
    min-height: var(--touch);
    border: 1px solid var(--steel-dark);
    border-radius: var(--round);
    background: #fff;
    padding: 2px 8px;
    font-size: 1rem;
    color: var(--ink);
    min-width: 0;
  }
  [role='alert'] {
    color: var(--rust);
    font-weight: 700;
    font-size: 0.875rem;
  }
</style>
