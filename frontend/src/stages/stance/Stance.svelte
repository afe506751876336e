<script lang="ts">
  // Stage Stance: the car drawn as it stands, what brings it to its heights and loads, its stands, springs and pads; and the tape for all of it.
  import { untrack } from 'svelte';
  import type { Corner } from '$lib/api/client';
  import type { Car } from '$lib/car.svelte';
  import { router } from '$lib/router.svelte';
  import Pressed from '$parts/form/Pressed.svelte';
  import Notice from '$parts/frame/Notice.svelte';
  import Panel from '$parts/frame/Panel.svelte';
  import Stage from '$parts/frame/Stage.svelte';
  import { Here } from '../plan/here/here.svelte';
  import PlanTape from '../plan/here/Tape.svelte';
  import Wanted from '../plan/here/Wanted.svelte';
  import { Standing } from './standing.svelte';
  import StanceDrawing from './StanceDrawing.svelte';
  import StancePanel from './StancePanel.svelte';
  import StanceSays from './StanceSays.svelte';
  import StanceTape from './StanceTape.svelte';
  import { STANCE } from './texts';

  type Props = { car: Car };
  let { car }: Props = $props();
  const standing = new Standing(untrack(() => car));
  $effect(() => {
    void car.view!.number; // whatever was read or turned may have moved it
    return untrack(() => standing.refresh());
  });
  const { tab, desk } = $derived(standing);
  const here = new Here(untrack(() => car));
  let springAt = $state<Corner>('LF');
</script>

{#snippet bar()}
  <Pressed
    label={STANCE.title}
    options={STANCE.tabs}
    value={tab}
    onpick={(to) => (desk.clear(), router.go(`/cars/${car.slug}/stance/${to}`))}
  />
  <StanceSays {standing} />
{/snippet}
{#snippet above()}<Wanted {here} stage="Stance" />{/snippet}
{#snippet foot()}{#if here.path}<PlanTape {here} />{:else}<StanceTape {standing} />{/if}{/snippet}

<Stage
  columns="45fr 55fr"
  {bar}
  {above}
  foot={here.path || (standing.taped && (desk.turning || desk.ask)) ? foot : undefined}
>
  <StanceDrawing
    view={car.view!}
    stance={standing.stance}
    corner={tab === 'springs' ? springAt : desk.corner}
    onStands={tab === 'stands'}
    quantity={standing.quantity}
    typed={desk.preview?.said ?? desk.typed}
  />
  <Panel>
    {#if standing.stance}
      <StancePanel {standing} stance={standing.stance} {springAt} onspring={(c) => (springAt = c)} />
    {:else if !standing.away}<Notice says="…" />{/if}
  </Panel>
</Stage>
