<script lang="ts">
  // The figure that is picked, over travel, steering or roll.
  import Plot from '$parts/Plot.svelte';
  import type { Bench } from './bench.svelte';
  import { linesOf } from './lines';
  import { TRAVEL } from './texts';

  type Props = { bench: Bench; svg: SVGSVGElement | undefined };
  let { bench, svg = $bindable() }: Props = $props();
  const label = $derived.by(() => {
    const { label, unit, plus } = bench.curve!;
    return `${label}${unit ? `, ${unit}` : ''}${plus ? ` · ${TRAVEL.plus(plus)}` : ''}`;
  });
</script>

<Plot
  bind:svg
  {label}
  drive={bench.planned!.drive}
  driveName={TRAVEL.drive[bench.over]}
  unit={bench.planned!.unit}
  lines={linesOf(bench.curve, bench.asBuilt, bench.after)}
  row={bench.row}
  onrow={(row) => (bench.row = row)}
  onstep={(by) => bench.step(by)}
/>
