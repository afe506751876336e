<script lang="ts">
  // What the builder wants of one car. Beginning a car and revising its plan are the same form.
  import { untrack } from 'svelte';
  import type { Car } from '$lib/car.svelte';
  import { router } from '$lib/router.svelte';
  import { cardsAreChapters } from '$parts/form/chapters';
  import Pressed from '$parts/form/Pressed.svelte';
  import Adjusters from './Adjusters.svelte';
  import Aims from './Aims.svelte';
  import DraftNote from './DraftNote.svelte';
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
  import { DRAWN } from './texts';
  import PlanDrawn from './drawn/PlanDrawn.svelte';
  import Wanting from './Wanting.svelte';

  type Props = { car?: Car };
  let { car }: Props = $props();
  const base = $derived(car ? `/cars/${car.slug}/plan` : '/begin');
  const drawn = $derived(router.parts[car ? 3 : 1] !== 'figures');
  const show = (what: string) => router.go(what ? `${base}/${what}` : base);
  const sheet = layOut(new Sheet(untrack(() => car)));
  cardsAreChapters(() => !drawn);
  const keep = (event: SubmitEvent) => (event.preventDefault(), void sheet.keep());
</script>

{#if drawn}
  <PlanDrawn onfigures={() => show('figures')} />
{:else}
  <main>
    <div class="tabs">
      <Pressed
        label={DRAWN.tabsLabel}
        options={DRAWN.tabs}
        value={'figures' as keyof typeof DRAWN.tabs}
        onpick={(to) => to === 'drawing' && show('')}
      />
    </div>
    <form onsubmit={keep} novalidate>
      <DraftNote />
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
{/if}

<style>
  main {
    padding: var(--gap-3);
  }
  .tabs {
    max-width: 1280px;
    margin: 0 auto 8px;
  }
  form {
    display: grid;
    gap: var(--gap-3);
    max-width: 1280px;
    margin: 0 auto;
  }
</style>
