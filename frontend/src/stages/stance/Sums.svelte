<script lang="ts">
  // The sums a builder asks for beside the car, each a row of fields and its answer under it.
  import { untrack } from 'svelte';
  import type { StanceView } from '$lib/api/client';
  import type { Car } from '$lib/car.svelte';
  import Card from '$parts/form/Card.svelte';
  import SumBar from './SumBar.svelte';
  import SumDamper from './SumDamper.svelte';
  import SumHeights from './SumHeights.svelte';
  import { Asked } from './sums.svelte';
  import SumSpring from './SumSpring.svelte';
  import SumTorsion from './SumTorsion.svelte';
  import SumTube from './SumTube.svelte';
  import { SUMS } from './texts';

  type Props = { car: Car; stance: StanceView };
  let { car, stance }: Props = $props();
  const asked = new Asked(untrack(() => car));
</script>

<Card label={SUMS.go}>
  <SumSpring {asked} />
  <SumDamper {asked} />
  <SumTube {asked} />
  <SumTorsion {asked} />
  <SumBar {asked} />
  <SumHeights {asked} features={stance.features.filter((f) => !f.master)} />
</Card>
