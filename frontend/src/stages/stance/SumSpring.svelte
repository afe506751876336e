<script lang="ts">
  // A spring from a wanted frequency, sag or preload.
  import type { Corner } from '$lib/api/client';
  import { CORNER_WORDS } from '$lib/marks';
  import Choice from '$parts/form/Choice.svelte';
  import Text from '$parts/form/Text.svelte';
  import Sum from './Sum.svelte';
  import { type Asked, plain } from './sums.svelte';
  import { SPRINGS, SUMS } from './texts';

  type Props = { asked: Asked };
  let { asked }: Props = $props();
  let corner = $state<Corner>('LF');
  let [hz, sag, preload] = $state(['', '', '']);
  const make = () => ({ kind: 'spring' as const, corner, hz: hz.trim() ? plain(hz) : null, sag, preload });
</script>

<Sum {asked} kind="spring" title={SUMS.spring} cols={5} {make}>
  <Choice label={SPRINGS.corner} options={CORNER_WORDS} bind:value={corner} />
  <Text label={SUMS.hz} bind:value={hz} figure />
  <Text label={SUMS.sag} bind:value={sag} figure />
  <Text label={SUMS.preload} bind:value={preload} figure />
</Sum>
