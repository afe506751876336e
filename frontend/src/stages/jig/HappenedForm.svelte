<script lang="ts">
  // What was done to the frame: welded, cut, knocked; and what carries the datum is said before it is gone.
  import { api, type What } from '$lib/api/client';
  import { until } from '$lib/api/until';
  import Choice from '$parts/form/Choice.svelte';
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import { type JigForms, pointsOf } from './jig-forms.svelte';
  import { JIG } from './texts';

  type Props = { forms: JigForms };
  let { forms }: Props = $props();
  let happened = $state<keyof typeof JIG.happenedWhat>('weld');
  let where = $state('');
  let lost = $state('');
  $effect(() => {
    const part = where;
    lost = '';
    return part && pointsOf(part).length && happened !== 'knock'
      ? until(
          () => api.lost(forms.survey.car.slug, part),
          (found) => (lost = found.say),
        )
      : undefined;
  });
  function tell(): void {
    const points = pointsOf(where);
    const what: What = { kind: 'happened', version: 1, what: happened, corner: null, words: '', points };
    void forms.record(what, JIG.happenedWhat[happened]);
  }
</script>

<Group title={JIG.happened}>
  <Row cols={2} end>
    <Choice label={JIG.tell} options={JIG.happenedWhat} bind:value={happened} />
    <Choice label={JIG.where} options={forms.places} empty={JIG.chooseWhere} bind:value={where} />
    <button type="button" class="button" disabled={!where} onclick={tell}>{JIG.tell}</button>
  </Row>
  <p class="caution">{happened === 'weld' ? JIG.weld : JIG.lift}</p>
  {#if lost}<p role="status" class="no">{lost}</p>{/if}
</Group>
