<script lang="ts">
  // One corner's spring at work: its rate at the wheel over travel beside the rough formula, its lengths, seats, and what ends the travel.
  import type { Corner, StanceView } from '$lib/api/client';
  import { CORNER_WORDS } from '$lib/marks';
  import Card from '$parts/form/Card.svelte';
  import Facts from '$parts/form/Facts.svelte';
  import Pressed from '$parts/form/Pressed.svelte';
  import SpringRate from './SpringRate.svelte';
  import SpringSeats from './SpringSeats.svelte';
  import Strip from './Strip.svelte';
  import { SPRINGS } from './texts';

  type Props = { stance: StanceView; corner: Corner; onpick: (corner: Corner) => void };
  let { stance, corner, onpick }: Props = $props();
  const one = $derived(stance.corners.find((c) => c.corner === corner)!);
  const spring = $derived(one.springs[0]);
</script>

<Card label={SPRINGS.plot}>
  <Pressed label={SPRINGS.corner} options={CORNER_WORDS} value={corner} {onpick} />
  {#if one.problem}<p role="alert" class="no">{one.problem}</p>{/if}
  {#if spring}<SpringRate {spring} {corner} />
  {:else if !one.problem}<p>{SPRINGS.none}</p>{/if}
  <div>
    {#if spring}<Facts rows={spring.lines} />{/if}
    {#if one.strip}
      <section>
        <h2>{SPRINGS.order}</h2>
        <Strip strip={one.strip} label={one.strip.lines.map(([line]) => line).join(' ')} height={190} />
        {#each one.strip.lines as [line, amiss], i (i)}<p class:no={amiss}>{line}</p>{/each}
      </section>
    {/if}
  </div>
  {#if spring?.seats.length}<SpringSeats seats={spring.seats} />{/if}
  {#if one.arms.length}
    <details>
      <summary>{SPRINGS.arms}</summary>
      <Facts rows={one.arms} />
    </details>
  {/if}
  <p class="caution">{SPRINGS.caution}</p>
</Card>

<style>
  div {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 18px;
  }
  h2 {
    font-size: 1rem;
  }
  section p {
    font-size: var(--type-small);
  }
  summary {
    cursor: pointer;
    min-height: var(--touch);
    align-content: center;
    color: var(--layout);
    text-decoration: underline;
  }
</style>
