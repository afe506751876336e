<script lang="ts">
  // What hangs on the linkage of one end, each part framed, and buttons for what it does not have yet.
  import type { Linkage } from '$lib/api/client';
  import type { End } from './draft';
  import JointForm from './JointForm.svelte';
  import { newBar, newJoint, newRocker, newShaft, newTorsion } from './linkage-parts';
  import PartForm from './PartForm.svelte';
  import { theSheet } from './sheet.svelte';
  import { PARTS, PLAN } from './texts';
  import TorsionForm from './TorsionForm.svelte';

  type Props = { end: End; linkage: Linkage };
  let { end, linkage }: Props = $props();
  const layout = $derived(theSheet().layout(end));
  const without = <T,>(rows: T[] | undefined, i: number) => (rows ?? []).filter((_, n) => n !== i);
  const add = $derived({
    ...(linkage.rocker ? {} : { rocker: () => (linkage.rocker = newRocker()) }),
    ...(linkage.bar ? {} : { bar: () => (linkage.bar = newBar()) }),
    ...(linkage.shaft || layout?.axle ? {} : { shaft: () => (linkage.shaft = newShaft()) }),
    torsions: () => (linkage.torsions = [...(linkage.torsions ?? []), newTorsion(PARTS.fresh)]),
    joints: () => (linkage.joints = [...(linkage.joints ?? []), newJoint(layout?.members[0] ?? '')]),
  });
</script>

<h3>{PLAN.axles[end]}</h3>
{#if linkage.rocker}
  <PartForm {end} part="rocker" held={linkage.rocker} far={linkage.rocker.rod} ontake={() => (linkage.rocker = null)} />
{/if}
{#if linkage.bar}
  <PartForm {end} part="bar" held={linkage.bar} far={linkage.bar.link} ontake={() => (linkage.bar = null)} />
{/if}
{#if linkage.shaft}
  <PartForm {end} part="shaft" held={linkage.shaft} ontake={() => (linkage.shaft = null)} />
{/if}
{#each linkage.torsions ?? [] as bar, i (i)}
  <TorsionForm {end} {bar} {i} ontake={() => (linkage.torsions = without(linkage.torsions, i))} />
{/each}
{#each linkage.joints ?? [] as joint, i (i)}
  <JointForm
    {end}
    {joint}
    {i}
    members={layout?.members ?? [joint.member]}
    ontake={() => (linkage.joints = without(linkage.joints, i))}
  />
{/each}
<p>
  {#each Object.entries(add) as [part, begin] (part)}
    <button type="button" class="button" onclick={begin}>{PARTS.add[part as keyof typeof PARTS.add]}</button>
  {/each}
</p>

<style>
  h3 {
    font-size: 1rem;
  }
  .button {
    font-weight: 400;
  }
  p {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
</style>
