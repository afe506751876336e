<script lang="ts">
  // Points that are off and accepted as they are, with the reason.
  import type { JigView } from '$lib/api/client';
  import { takeOut } from '$lib/takeout';
  import Choice from '$parts/form/Choice.svelte';
  import Folded from '$parts/form/Folded.svelte';
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import { spoken } from '$lib/marks';
  import type { JigForms } from './jig-forms.svelte';
  import { WELD } from './texts';

  type Props = { forms: JigForms; view: JigView };
  let { forms, view }: Props = $props();
  let accept = $state({ point: '', why: '' });
  const off = $derived(Object.fromEntries(view.pickups.filter((p) => p.off).map((p) => [p.point, p.say])));
  const said = $derived(Object.entries(view.works.accepted).map(([point, why]) => `${spoken(point)}: ${why}.`));
  const write = () =>
    void takeOut(accept, ['point', 'why'], ({ point, why }) =>
      forms.record({ kind: 'accepted', version: 1, point, reason: why }, WELD.accept),
    );
</script>

<Group title={WELD.accept} soft="{WELD.acceptSoft} {said.join(' ')}">
  <Folded title={WELD.accepted}>
    <Row cols={2} end>
      <Choice label={WELD.point} name={WELD.whichPoint} options={off} empty="" bind:value={accept.point} />
      <Text label={WELD.why} bind:value={accept.why} max={400} />
      <button type="button" class="button" disabled={!accept.point} onclick={write}>{WELD.accepted}</button>
    </Row>
  </Folded>
</Group>
