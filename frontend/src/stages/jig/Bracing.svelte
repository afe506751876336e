<script lang="ts">
  // Whether the body is braced.
  import type { JigForms } from './jig-forms.svelte';
  import { WELD } from './texts';

  type Props = { forms: JigForms };
  let { forms }: Props = $props();
  const say = (braced: boolean) => void forms.record({ kind: 'bracing', version: 1, braced, reason: '' }, WELD.bracing);
</script>

<p>
  {WELD.bracing}:
  <button type="button" class="button" onclick={() => say(true)}>{WELD.braced}</button>
  <button type="button" class="button" onclick={() => say(false)}>{WELD.unbraced}</button>
</p>

<style>
  .button {
    font-weight: 400;
    padding: 0 10px;
  }
</style>
