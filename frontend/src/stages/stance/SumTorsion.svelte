<script lang="ts">
  // A torsion bar: its splines, where the arm stands, how far a spline or its fine adjuster goes.
  import Text from '$parts/form/Text.svelte';
  import Sum from './Sum.svelte';
  import { type Asked, plain } from './sums.svelte';
  import { SUMS } from './texts';

  type Props = { asked: Asked };
  let { asked }: Props = $props();
  let torsion = $state({ inner: '', outer: '', arm: '', rate: '', load: '', loaded: '', low: '', fine: '' });
  const keys = ['inner', 'outer', 'arm', 'rate', 'load', 'loaded', 'low', 'fine'] as const;
  const make = async () => ({
    ...torsion,
    kind: 'torsion' as const,
    inner: plain(torsion.inner) || 0,
    outer: plain(torsion.outer) || 0,
    rate: await asked.read(torsion.rate, 'torsion'),
  });
</script>

<Sum {asked} kind="torsion" title={SUMS.torsion} {make}>
  {#each keys as key (key)}<Text label={SUMS[key]} bind:value={torsion[key]} figure />{/each}
</Sum>
