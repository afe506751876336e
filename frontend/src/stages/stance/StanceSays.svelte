<script lang="ts">
  // What is to be known first of how the car stands.
  import Says from '$parts/frame/Says.svelte';
  import type { Standing } from './standing.svelte';
  import { STANCE } from './texts';

  type Props = { standing: Standing };
  let { standing }: Props = $props();
  const { stance, tab, away } = $derived(standing);
  const provisional = $derived(tab === 'floor' ? (stance?.provisional ?? []) : []);
  const note = $derived(tab === 'stands' || tab === 'sums' ? '' : (stance?.notes[0] ?? ''));
</script>

<Says amiss={Boolean(away || provisional.length)}>
  {#if away}<p>{away}</p>
  {:else if provisional.length}<p><b>{STANCE.provisional}:</b> {provisional.join('; ')}.</p>
  {:else if note}<p>{note}</p>{/if}
</Says>
