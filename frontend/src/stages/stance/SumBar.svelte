<script lang="ts">
  // An anti-roll bar at work, that of the plan or one of these sizes.
  import Choice from '$parts/form/Choice.svelte';
  import Text from '$parts/form/Text.svelte';
  import Sum from './Sum.svelte';
  import type { Asked } from './sums.svelte';
  import { SUMS } from './texts';

  type Props = { asked: Asked };
  let { asked }: Props = $props();
  let end = $state<'front' | 'rear'>('front');
  let [left, right] = $state(['', '']);
  let size = $state(['', '', '', '', '', '']);

  async function make() {
    const mm = await Promise.all(size.map((text) => asked.read(text, 'length')));
    const [diameter, bore, length, arm, arm_width, arm_height] = mm as [number, number, number, number, number, number];
    const bar = diameter ? { diameter, bore, length, arm, arm_width, arm_height } : null;
    return { kind: 'bar' as const, end, left, right, bar };
  }
</script>

<Sum {asked} kind="bar" title={SUMS.bar} soft={SUMS.barSoft} cols={5} {make}>
  <Choice label={SUMS.end} options={SUMS.ends} bind:value={end} />
  <Text label={SUMS.left} bind:value={left} figure />
  <Text label={SUMS.right} bind:value={right} figure />
  {#each SUMS.size as word, i (word)}<Text label={word} bind:value={size[i]!} figure />{/each}
</Sum>
