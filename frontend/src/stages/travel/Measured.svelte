<script lang="ts">
  // Points as they were measured on the car: from then on the curves are drawn as planned and as built.
  import { api, type Plan, Refused, type What } from '$lib/api/client';
  import type { Car } from '$lib/car.svelte';
  import Card from '$parts/form/Card.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import { TRAVEL } from './texts';

  type Props = { car: Car; plan: Plan; onclose: () => void };
  let { car, plan, onclose }: Props = $props();

  const hints = $derived(TRAVEL.measureHints[plan.units.system === 'mm' ? 'mm' : 'inches']);
  let text = $state('');
  let sure = $state('');
  let refusal = $state('');
  let unusual = $state(false); // asked about once; sent again, it is kept
  const said = (error: unknown) =>
    (error instanceof Refused && error.problems.map((p) => `${p.path}: ${p.sentence}`).join(' ')) ||
    (error as Error).message;

  async function keep(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    refusal = '';
    try {
      const points = await api.points(text, plan.units);
      const { value: expanded } = await api.read(sure, 'length', plan.units);
      const what: What = { kind: 'surveyed', version: 1, points, expanded, words: '', confirmed: unusual };
      const fate = await car.ask(what, TRAVEL.measure);
      if (fate.fate !== 'refused') return onclose();
      [unusual, refusal] = [fate.code === 'unusual_value', fate.sentence];
    } catch (error) {
      refusal = said(error);
    }
  }
</script>

<form onsubmit={keep} aria-label={TRAVEL.measure}>
  <Card title={TRAVEL.measure} beside={TRAVEL.measureSoft}>
    <Text
      label={TRAVEL.places}
      bind:value={text}
      rows={4}
      max={100000}
      hint={hints.points}
      oninput={() => (unusual = false)}
    />
    <Row cols={1} end>
      <Text label={TRAVEL.sure} bind:value={sure} figure max={40} hint={hints.sure} />
      <span>
        <button type="button" class="button" onclick={onclose}>{TRAVEL.leave}</button>
        <button class="button" data-main disabled={!text.trim() || !sure.trim()}>{TRAVEL.keep}</button>
      </span>
    </Row>
    {#if refusal}<p class="no" role="alert">{refusal}</p>{/if}
  </Card>
</form>
