<script lang="ts">
  // What points have come to: tacked, welded, painted; and what their pins say.
  import type { JigView } from '$lib/api/client';
  import Choice from '$parts/form/Choice.svelte';
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import type { JigForms } from './jig-forms.svelte';
  import { JIG } from './texts';

  type Props = { forms: JigForms; view: JigView };
  let { forms, view }: Props = $props();
  let point = $state('');
  let status = $state<keyof typeof JIG.statuses>('tacked');
  let pin = $state<keyof typeof JIG.pinSays>('free');
  const felt = $derived(view.points.filter((p) => p.pins.length));
  const open = $derived(
    status === 'welded' || status === 'painted' ? view.works.holds.filter((h) => !h.met).map((h) => h.condition) : [],
  );
  const markStatus = () => void forms.record({ kind: 'status', version: 1, point, status }, JIG.status);
  const markPin = () => void forms.record({ kind: 'pin', version: 1, point, says: pin }, JIG.pin);
</script>

<Group title={JIG.status}>
  <Row cols={2} end>
    <Choice label={JIG.where} options={forms.parts} empty="" bind:value={point} />
    <Choice label={JIG.tabs.pickups} options={JIG.statuses} bind:value={status} />
    <button type="button" class="button" disabled={!point} onclick={markStatus}>{JIG.mark}</button>
  </Row>
  {#if open.length}<p class="caution" role="status">{JIG.stillOpen(open)}</p>{/if}
  <Row cols={1} end>
    <Choice label={JIG.pin} options={JIG.pinSays} bind:value={pin} />
    <button type="button" class="button" disabled={!forms.names.includes(point)} onclick={markPin}>{JIG.mark}</button>
  </Row>
  {#each felt.filter((p) => p.pin_means) as p, i (i)}<p class:caution={p.pins.at(-1) !== 'free'}>
      {p.pin_means}
    </p>{/each}
  <p class="soft">
    {#each felt as p, i (i)}{p.say}: {p.pins.join(', then ')}.
    {/each}
  </p>
</Group>
