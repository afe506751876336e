<script lang="ts">
  // Whether a damper fits: its lengths against the travel of a corner.
  import type { Corner } from '$lib/api/client';
  import { CORNER_WORDS } from '$lib/marks';
  import Choice from '$parts/form/Choice.svelte';
  import Text from '$parts/form/Text.svelte';
  import Sum from './Sum.svelte';
  import type { Asked } from './sums.svelte';
  import { SPRINGS, SUMS } from './texts';

  type Props = { asked: Asked };
  let { asked }: Props = $props();
  let corner = $state<Corner>('LF');
  let [closed, open] = $state(['', '']);
  const make = () => ({ kind: 'damper' as const, corner, closed, open });
</script>

<Sum {asked} kind="damper" title={SUMS.damper} soft={SUMS.damperSoft} {make}>
  <Choice label={SPRINGS.corner} options={CORNER_WORDS} bind:value={corner} />
  <Text label={SUMS.closed} bind:value={closed} figure />
  <Text label={SUMS.open} bind:value={open} figure />
</Sum>
