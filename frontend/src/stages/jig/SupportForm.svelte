<script lang="ts">
  // What the frame stands on, and what the angle gauge was zeroed on.
  import type { JigView } from '$lib/api/client';
  import Choice from '$parts/form/Choice.svelte';
  import Group from '$parts/form/Group.svelte';
  import type { JigForms } from './jig-forms.svelte';
  import { JIG } from './texts';

  type Props = { forms: JigForms; view: JigView };
  let { forms, view }: Props = $props();
  const zero = (on: JigView['zero']) => void forms.record({ kind: 'zeroed', version: 1, on }, JIG.zero);
  const support = (how: JigView['support']) => void forms.record({ kind: 'supported', version: 1, how }, JIG.support);
</script>

<Group title={JIG.support}>
  <Choice label={JIG.zero} options={JIG.zeros} bind:value={() => view.zero, zero} />
  <Choice label={JIG.supportSoft} options={view.supports} bind:value={() => view.support, support} />
</Group>
