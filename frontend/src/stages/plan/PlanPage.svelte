<script lang="ts">
  // What the builder wants of one car. Beginning a car and revising its plan are the same form.
  import { untrack } from 'svelte';
  import type { Car } from '$lib/car.svelte';
  import Adjusters from './Adjusters.svelte';
  import Aims from './Aims.svelte';
  import Dimensions from './Dimensions.svelte';
  import Footing from './Footing.svelte';
  import From from './From.svelte';
  import HeightPlaces from './HeightPlaces.svelte';
  import Keep from './Keep.svelte';
  import Naming from './Naming.svelte';
  import Parts from './Parts.svelte';
  import Points from './Points.svelte';
  import { layOut, Sheet } from './sheet.svelte';
  import Springs from './Springs.svelte';
  import Tools from './Tools.svelte';
  import Wanting from './Wanting.svelte';

  type Props = { car?: Car };
  let { car }: Props = $props();
  const sheet = layOut(new Sheet(untrack(() => car)));
  const keep = (event: SubmitEvent) => (event.preventDefault(), void sheet.keep());
</script>

<main>
  <form onsubmit={keep} novalidate>
    <Naming />
    {#if !car}<From />{/if}
    <Dimensions />
    <Aims />
    <HeightPlaces />
    {#if sheet.wanting.length}<Wanting rows={sheet.wanting} />{/if}
    <Points />
    <Springs />
    <Parts />
    <Footing />
    <Adjusters />
    <Tools />
    <Keep />
  </form>
</main>

<style>
  main {
    padding: var(--gap-3);
  }
  form {
    display: grid;
    gap: var(--gap-3);
    max-width: 1280px;
    margin: 0 auto;
  }
</style>
