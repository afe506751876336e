<script lang="ts">
  // Stage Travel: what the wheels do over travel, steering and roll; what if something moved; which levers move a figure.
  import { untrack } from 'svelte';
  import type { Car } from '$lib/car.svelte';
  import { link } from '$lib/router.svelte';
  import Notice from '$parts/frame/Notice.svelte';
  import Stage from '$parts/frame/Stage.svelte';
  import { Here } from '../plan/here/here.svelte';
  import PlanTape from '../plan/here/Tape.svelte';
  import Wanted from '../plan/here/Wanted.svelte';
  import { Bench } from './bench.svelte';
  import Curves from './Curves.svelte';
  import Figures from './Figures.svelte';
  import Linkage from './Linkage.svelte';
  import Levers from './Levers.svelte';
  import Measured from './Measured.svelte';
  import { TRAVEL } from './texts';
  import TravelBar from './TravelBar.svelte';
  import WhatIf from './WhatIf.svelte';

  type Props = { car: Car };
  let { car }: Props = $props();
  const bench = new Bench(
    untrack(() => car.slug),
    untrack(() => car.view?.plan.units.system !== 'mm'),
  );
  const plan = $derived(car.view!.plan);
  const linkage = $derived(bench.end === 'front' ? plan.front_linkage : plan.rear_linkage);
  $effect(() => {
    void car.view?.plan_number; // a plan revised is drawn anew, and so is a car measured
    bench.surveyed = car.view?.surveyed ?? [];
    untrack(() => void bench.ask());
  });
  const here = new Here(untrack(() => car));
  let measuring = $state(false);
  let svg = $state<SVGSVGElement>();
</script>

{#snippet bar()}<TravelBar {bench} {plan} {svg} bind:measuring />{/snippet}
{#snippet above()}<Wanted {here} stage="Travel" />{/snippet}
{#snippet foot()}<PlanTape {here} />{/snippet}
{#snippet toPlan()}<a class="button" data-main href="/cars/{car.slug}/plan/figures" use:link>{TRAVEL.toPlan}</a
  >{/snippet}

<Stage
  columns={bench.built && bench.moved ? '46fr 54fr' : '58fr 42fr'}
  {bar}
  {above}
  foot={here.path ? foot : undefined}
>
  {#if !linkage}<Notice says={TRAVEL.none}>{@render toPlan()}</Notice>
  {:else if bench.planned && bench.curve}
    {#if bench.shown === 'linkage'}<Linkage {bench} />{:else}<Curves {bench} bind:svg />{/if}
    <Figures {bench} />
    {#if measuring}<Measured {car} {plan} onclose={() => (measuring = false)} />{:else}<WhatIf {bench} {plan} />{/if}
    <Levers {bench} />
  {:else if bench.refusal}<Notice says={bench.refusal} alarming>{@render toPlan()}</Notice>
  {:else}<Notice says="…" />{/if}
</Stage>
