<script lang="ts">
  // How long a tube is cut between two joints.
  import Text from '$parts/form/Text.svelte';
  import Sum from './Sum.svelte';
  import type { Asked } from './sums.svelte';
  import { SUMS } from './texts';

  type Props = { asked: Asked };
  let { asked }: Props = $props();
  let tube = $state({ length: '', joint: '', thread: '' });
  const make = () => ({ kind: 'tube' as const, ...tube });
</script>

<Sum {asked} kind="tube" title={SUMS.tube} {make}>
  {#each ['length', 'joint', 'thread'] as const as key (key)}
    <Text label={SUMS[key]} bind:value={tube[key]} figure />
  {/each}
</Sum>
