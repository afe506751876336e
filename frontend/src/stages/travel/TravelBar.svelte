<script lang="ts">
  // Which end, over what; measured lengths; and saving what is shown.
  import type { Plan } from '$lib/api/client';
  import Pressed from '$parts/form/Pressed.svelte';
  import type { Bench, End, Over } from './bench.svelte';
  import { saveDrawing, savePicture, saveTable } from './saving';
  import { TRAVEL } from './texts';

  type Props = { bench: Bench; plan: Plan; svg: SVGSVGElement | undefined; measuring: boolean };
  let { bench, plan, svg, measuring = $bindable() }: Props = $props();

  const steers = (end: End) => {
    const linkage = end === 'front' ? plan.front_linkage : plan.rear_linkage;
    return linkage ? linkage.steering !== 'none' : false;
  };
  const { steer, ...unsteered } = TRAVEL.over;
  const overs = $derived<Partial<Record<Over, string>>>(
    steers(bench.end) ? { travel: unsteered.travel, steer, roll: unsteered.roll } : unsteered,
  );
  const to = (end: End) => bench.show(end, bench.over === 'steer' && !steers(end) ? 'travel' : bench.over);
  const name = (what: string) => `${bench.slug}-${bench.end}-${what}`;
</script>

<Pressed label={TRAVEL.title} options={TRAVEL.ends} value={bench.end} onpick={to} />
<Pressed label={TRAVEL.range} options={overs} value={bench.over} onpick={(over) => bench.show(bench.end, over)} />
{#if bench.planned}
  <Pressed label={TRAVEL.shownLabel} options={TRAVEL.shown} value={bench.shown} onpick={(to) => (bench.shown = to)} />
  <button type="button" class="button" aria-expanded={measuring} onclick={() => (measuring = !measuring)}
    >{bench.measured.length ? TRAVEL.measured(bench.measured.length) : TRAVEL.measure}</button
  >
  <div role="group" aria-label={TRAVEL.save}>
    <span class="soft">{TRAVEL.save}</span>
    <button type="button" class="button" onclick={() => saveTable(name('travel.csv'), bench.csv())}>{TRAVEL.csv}</button
    >
    <button type="button" class="button" onclick={() => svg && saveDrawing(name(`${bench.answer}.svg`), svg)}
      >{TRAVEL.svg}</button
    >
    <button type="button" class="button" onclick={() => svg && savePicture(name(`${bench.answer}.png`), svg)}
      >{TRAVEL.png}</button
    >
  </div>
{/if}

<style>
  div {
    display: flex;
    gap: var(--gap-2);
    align-items: center;
    margin-left: auto;
  }
  .button {
    font-weight: 400;
  }
</style>
