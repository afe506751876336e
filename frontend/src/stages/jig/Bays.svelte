<script lang="ts">
  // Whether each bay of the frame whose corners are known is square.
  import type { JigView } from '$lib/api/client';

  type Props = { view: JigView };
  let { view }: Props = $props();
</script>

{#each view.bays as bay, i (i)}
  <p class={bay.verdict === 'out' ? 'no' : ''}><b>{bay.say}</b></p>
{/each}
