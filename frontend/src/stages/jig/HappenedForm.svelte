<script lang="ts">
  // What was done to the frame: welded, cut, knocked; and what carries the datum is said before it is gone.
  import { api, type What } from '$lib/api/client';
  import { until } from '$lib/api/until';
  import Choice from '$parts/form/Choice.svelte';
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import { spoken } from '$lib/marks';
  import type { JigForms } from './jig-forms.svelte';
  import { JIG } from './texts';

  type Props = { forms: JigForms };
  let { forms }: Props = $props();
  const EVERYTHING = '*'; // said on purpose: nothing of the frame counts any more after it
  let happened = $state<keyof typeof JIG.happenedWhat>('weld');
  let where = $state('');
  let lost = $state('');
  const places = $derived({
    [EVERYTHING]: JIG.everything,
    ...Object.fromEntries(forms.parts.map((p) => [p, spoken(p)])),
  });
  $effect(() => {
    const part = where;
    lost = '';
    return part && part !== EVERYTHING && happened !== 'knock'
      ? until(
          () => api.lost(forms.survey.car.slug, part),
          (found) => (lost = found.say),
        )
      : undefined;
  });
  function tell(): void {
    const points = where === EVERYTHING ? [] : [where];
    const what: What = { kind: 'happened', version: 1, what: happened, corner: null, words: '', points };
    void forms.record(what, JIG.happenedWhat[happened]);
  }
</script>

<Group title={JIG.happened}>
  <Row cols={2} end>
    <Choice label={JIG.tell} options={JIG.happenedWhat} bind:value={happened} />
    <Choice label={JIG.where} options={places} empty={JIG.chooseWhere} bind:value={where} />
    <button type="button" class="button" disabled={!where} onclick={tell}>{JIG.tell}</button>
  </Row>
  <p class="caution">{happened === 'weld' ? JIG.weld : JIG.lift}</p>
  {#if lost}<p role="status" class="no">{lost}</p>{/if}
</Group>
