<script lang="ts">
  // Asking for a list of what to measure, for a wanted doubt.
  import Text from '$parts/form/Text.svelte';
  import type { Survey } from './survey.svelte';
  import { JIG } from './texts';

  type Props = { survey: Survey };
  let { survey }: Props = $props();
  let wanted = $state('');
  const propose = (event: SubmitEvent) => (event.preventDefault(), void survey.propose(wanted.trim() || survey.usual));
</script>

<form onsubmit={propose}>
  <Text label={JIG.sure} bind:value={wanted} figure max={40} hint={survey.usual} />
  <button class="button" data-main>{JIG.propose}</button>
  <p class="soft" role="status">{survey.listSays || JIG.free}</p>
</form>

<style>
  form {
    display: grid;
    grid-template-columns: 110px auto 1fr;
    gap: 10px;
    align-items: end;
  }
</style>
