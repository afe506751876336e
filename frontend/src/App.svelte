<script lang="ts">
  // Which page an address means. A car is kept while its pages change, and let go with its address.
  import { Car } from '$lib/car.svelte';
  import { gate } from '$lib/gate.svelte';
  import { router } from '$lib/router.svelte';
  import Rule from '$parts/Rule.svelte';
  import Trouble from '$parts/Trouble.svelte';
  import Cars from './stages/cars/Cars.svelte';
  import LetIn from './stages/shop/LetIn.svelte';
  import Shop from './stages/shop/Shop.svelte';
  import Jig from './stages/jig/Jig.svelte';
  import Log from './stages/log/Log.svelte';
  import PlanPage from './stages/plan/PlanPage.svelte';
  import Practice from './stages/practice/Practice.svelte';
  import Truth from './stages/practice/Truth.svelte';
  import SetStage from './stages/set/Set.svelte';
  import Stance from './stages/stance/Stance.svelte';
  import Travel from './stages/travel/Travel.svelte';
  import Wall from './stages/wall/Wall.svelte';
  import Walk from './stages/walk/Walk.svelte';

  const slug = $derived(router.parts[0] === 'cars' ? router.parts[1] : undefined);
  const stage = $derived(router.parts[2] ?? '');
  const car = $derived(slug ? new Car(slug) : undefined);
  $effect(() => {
    const mine = car;
    return () => mine?.stop();
  });
  $effect(() => {
    document.title = [car?.view?.plan.name, 'Ready Corner'].filter(Boolean).join(' · ');
  });
</script>

<Rule {car} here={stage} />
{#if gate.locked}<LetIn />{/if}
{#if router.parts[0] === 'begin'}
  <PlanPage />
{:else if router.parts[0] === 'shop'}
  <Shop />
{:else if router.parts[0] === 'practice'}
  <Practice />
{:else if !car}
  <Cars />
{:else if car.missing}
  <main class="card">
    <h1>{car.missing}</h1>
    <p><a href="/">All cars</a></p>
  </main>
{:else if !car.view}
  <main class="card" aria-busy="true"><p role="status">Opening the logbook…</p></main>
{:else if stage === 'plan'}
  {#key `${car.slug}/${car.view.plan_number}`}<PlanPage {car} />{/key}
{:else if stage === 'jig'}
  {#key car.slug}<Jig {car} />{/key}
{:else if car.view.trouble && ['', 'set', 'stance', 'wall'].includes(stage)}
  <Trouble {car} trouble={car.view.trouble} />
{:else if stage === 'set'}
  {#key car.slug}<SetStage {car} />{/key}
{:else if stage === 'stance'}
  <Stance {car} />
{:else if stage === 'travel'}
  {#key car.slug}<Travel {car} />{/key}
{:else if stage === 'practice'}
  <Truth {car} />
{:else if stage === 'wall'}
  <Wall {car} />
{:else if stage === 'log'}
  <Log {car} />
{:else}
  <Walk {car} />
{/if}

<style>
  .card {
    margin: var(--gap-4);
    align-self: start;
  }
</style>
