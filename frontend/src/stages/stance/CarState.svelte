<script lang="ts">
  // What is aboard, the fuel, the pressures, and what is not fitted yet.
  import { untrack } from 'svelte';
  import type { StanceView, What } from '$lib/api/client';
  import Check from '$parts/form/Check.svelte';
  import Choice from '$parts/form/Choice.svelte';
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import { STATE } from './texts';

  type Props = { stance: StanceView; record: (what: What, title: string) => Promise<void> };
  let { stance, record }: Props = $props();
  const said = untrack(() => stance.state);
  let aboard = $state<keyof typeof STATE.aboards>(said?.aboard ?? 'driver');
  let fuel = $state(said?.fuel ?? '');
  let missing = $state((said?.missing ?? []).join('\n'));
  let at_pressure = $state(said?.at_pressure ?? true);
  function keep(): void {
    const lines = missing.split('\n').map((m) => m.trim());
    void record({ kind: 'state', version: 1, aboard, fuel, missing: lines.filter(Boolean), at_pressure }, STATE.state);
  }
</script>

<Group title={STATE.state} soft={stance.state ? '' : STATE.unsaid}>
  <Row cols={2} end>
    <Choice label={STATE.aboard} options={STATE.aboards} bind:value={aboard} />
    <Text label={STATE.fuel} bind:value={fuel} />
    <Check label={STATE.pressure} bind:checked={at_pressure} />
  </Row>
  <Text label={STATE.missing} bind:value={missing} rows={2} max={4000} />
  <p><button type="button" class="button" data-main onclick={keep}>{STATE.keep}</button></p>
</Group>
