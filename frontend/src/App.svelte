<script lang="ts">
  // Which page an address means. A car is kept while its pages change, and let go with its address.
  import { Car } from '$lib/car.svelte';
  import { gate } from '$lib/gate.svelte';
  import { router } from '$lib/router.svelte';
  import Opening from '$parts/Opening.svelte';
  import Rule from '$parts/Rule.svelte';
  import Trouble from '$parts/Trouble.svelte';
  import Later from './Later.svelte';
  import { bringAll } from './pages';
  import Cars from './stages/cars/Cars.svelte';
  import LetIn from './stages/shop/LetIn.svelte';
  import Walk from './stages/walk/Walk.svelte';

  const slug = $derived(router.parts[0] === 'cars' ? router.parts[1] : undefined);
  const stage = $derived(router.parts[2] ?? '');
  const car = $derived(slug ? new Car(slug) : undefined);
  $effect(() => {
    const mine = car;
    return () => mine?.stop();
  });
  const REST_MS = 2000;
  $effect(() => {
    const timer = setTimeout(bringAll, REST_MS);
    return () => clearTimeout(timer);
  });
  $effect(() => {
    document.title = [car?.view?.plan.name, 'Ready Corner'].filter(Boolean).join(' · ');
  });
</script>

<Rule {car} here={stage} />
{#if gate.locked}<LetIn />{/if}
{#if router.parts[0] === 'begin'}
  <Later page="plan" />
{:else if router.parts[0] === 'shop'}
  <Later page="shop" />
{:else if router.parts[0] === 'practice'}
  <Later page="practice" />
{:else if !car}
  <Cars />
{:else if car.missing}
  <main class="card">
    <h1>{car.missing}</h1>
    <p><a href="/">All cars</a></p>
  </main>
{:else if !car.view}
  <Opening {car} />
{:else if stage === 'plan'}
  {#key car.slug}<Later page="plan" {car} />{/key}
{:else if stage === 'jig'}
  {#key car.slug}<Later page="jig" {car} />{/key}
{:else if car.view.trouble && ['', 'set', 'stance', 'wall'].includes(stage)}
  <Trouble {car} trouble={car.view.trouble} />
{:else if stage === 'set'}
  {#key car.slug}<Later page="set" {car} />{/key}
{:else if stage === 'stance'}
  <Later page="stance" {car} />
{:else if stage === 'travel'}
  {#key car.slug}<Later page="travel" {car} />{/key}
{:else if stage === 'practice'}
  <Later page="truth" {car} />
{:else if stage === 'wall'}
  <Later page="wall" {car} />
{:else if stage === 'log'}
  <Later page="log" {car} />
{:else}
  <Walk {car} />
{/if}

<style>
  .card {
    margin: var(--gap-4);
    align-self: start;
  }
</style>
