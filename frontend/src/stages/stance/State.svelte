<script lang="ts">
  // Pads, the state the car is in, its tyres and bar links, and its ride height by any feature.
  import type { CarView, StanceView, What } from '$lib/api/client';
  import type { Car } from '$lib/car.svelte';
  import Card from '$parts/form/Card.svelte';
  import Group from '$parts/form/Group.svelte';
  import Table from '$parts/form/Table.svelte';
  import BarLinks from './BarLinks.svelte';
  import CarState from './CarState.svelte';
  import PadsForm from './PadsForm.svelte';
  import { STANCE, STATE } from './texts';
  import Tyres from './Tyres.svelte';

  type Props = { car: Car; view: CarView; stance: StanceView };
  let { car, view, stance }: Props = $props();
  let refusal = $state('');

  async function record(what: What, title: string): Promise<void> {
    const fate = await car.ask(what, title);
    refusal = fate.fate === 'refused' ? fate.sentence : '';
  }
</script>

<Card label={STANCE.tabs.state}>
  {#if refusal}<p class="no" role="alert">{refusal}</p>{/if}
  <PadsForm slug={car.slug} {stance} {record} />
  <CarState {stance} {record} />
  <BarLinks {view} {record} />
  <Tyres slug={car.slug} {stance} {record} />
  <Group title={STATE.features} soft={STATE.featuresSoft}>
    <Table head={['', STATE.wanted, STATE.now]}>
      {#each stance.features as f, i (i)}
        <tr data-master={f.master || undefined}
          ><th scope="row">{f.name}</th><td class="fig">{f.wanted}</td><td class="fig">{f.now || '—'}</td></tr
        >
      {/each}
    </Table>
  </Group>
  {#if stance.notes.length}
    <Group title={STATE.notes}
      >{#each stance.notes as note, i (i)}<p>{note}</p>{/each}</Group
    >
  {/if}
</Card>

<style>
  [data-master] th {
    font-weight: 700;
  }
</style>
