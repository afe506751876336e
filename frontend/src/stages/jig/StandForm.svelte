<script lang="ts">
  // A support of the body: whether it carries or locates, its pin and its hole.
  import { api } from '$lib/api/client';
  import Choice from '$parts/form/Choice.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import type { JigForms } from './jig-forms.svelte';
  import { WELD } from './texts';

  type Props = { forms: JigForms };
  let { forms }: Props = $props();
  let role = $state<'carries' | 'locates'>('carries');
  let stand = $state({ name: '', pin: '', hole: '' });

  async function write(): Promise<void> {
    const units = forms.survey.car.view!.plan.units;
    const { name, ...sizes } = stand;
    const mm = async (text: string) => (text.trim() ? (await api.read(text, 'length', units)).value : 0);
    try {
      const [pin, hole] = await Promise.all([mm(sizes.pin), mm(sizes.hole)]);
      if (await forms.record({ kind: 'support_point', version: 1, name, role, pin, hole }, WELD.support))
        stand = { name: '', pin: '', hole: '' };
    } catch (error) {
      forms.refusal = (error as Error).message;
    }
  }
</script>

<Row cols={4} end>
  <Text label={WELD.support} bind:value={stand.name} max={60} hint={WELD.name} />
  <Choice label={WELD.role} options={WELD.roles} bind:value={role} />
  <Text label={WELD.pin} bind:value={stand.pin} figure max={20} />
  <Text label={WELD.hole} bind:value={stand.hole} figure max={20} />
  <button type="button" class="button" disabled={!stand.name.trim()} onclick={() => void write()}>{WELD.read}</button>
</Row>
