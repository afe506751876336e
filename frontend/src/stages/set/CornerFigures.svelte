<script lang="ts">
  // Height and angles of the corner in hand, and the axle it stands on.
  import type { CarView, Corner } from '$lib/api/client';
  import { kindsAt, markKindOf, MARK_KINDS, placeOf, WHOLE_MARKS } from '$lib/kinds';
  import { isFront, markOf, wordFor } from '$lib/marks';
  import Witness from '$parts/Witness.svelte';
  import { SET } from './texts';

  type Props = { view: CarView; corner: Corner; kinds: readonly string[]; brief: boolean };
  let { view, corner, kinds, brief }: Props = $props();

  const marks = $derived(
    kindsAt(corner)
      .map((kind) => ({ kind, mark: markOf(view, `${corner}.${kind}`) }))
      .filter(({ kind, mark }) => !MARK_KINDS[kind]!.only_aimed || mark.aim),
  );
  const inHand = $derived(marks.find(({ kind }) => kinds.includes(kind))?.mark);
  const whole = $derived(
    WHOLE_MARKS.filter((m) => placeOf(m) === 'car' || placeOf(m) === (isFront(corner) ? 'front' : 'rear'))
      .filter((m) => MARK_KINDS[markKindOf(m)]!.unit !== '%') // of the scales; it is told where they are read
      .map((m) => markOf(view, m)),
  );
</script>

<div class="corner">
  {#each marks as { kind, mark } (kind)}
    <div class="cell" title={mark.mostly}>
      <Witness state={mark.state} />
      <div>
        <small>{kind}</small><b class="fig">{mark.say}</b><small
          >{mark.say_u ? `${mark.say_u} · ` : ''}{wordFor(mark.state)}</small
        >
      </div>
    </div>
  {/each}
</div>
{#if !brief && inHand?.mostly}<p class="soft">{inHand.mark.split('.')[1]} {inHand.say_u}. {inHand.mostly}</p>{/if}
{#if view.corners[corner].toe.length && !brief}
  <p class="soft">toe = {view.corners[corner].toe.slice(1).join(' = ')}</p>
{/if}
{#if view.corners[corner].rough && kinds.includes('caster') && !brief}<p class="soft">
    {view.corners[corner].rough}
  </p>{/if}
{#if view.corners[corner].tread && !brief}<p class="soft">camber {view.corners[corner].tread}</p>{/if}
{#if view.corners[corner].travel && !brief}<p class="soft">{view.corners[corner].travel}</p>{/if}
{#if !brief}<div class="whole" role="group" aria-label={SET.wholeCar}>
    {#each whole as mark (mark.mark)}
      {#if mark.value !== null}<span
          >{MARK_KINDS[markKindOf(mark.mark)]!.short} <b class="fig">{mark.say}</b>
          {mark.say_u}{mark.aim ? ` · ${wordFor(mark.state)}` : ''}</span
        >{/if}
    {/each}
    {#if view.steer_ahead}<span>{view.steer_ahead}</span>{/if}
  </div>{/if}

<style>
  .corner {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(140px, 1fr));
    gap: 8px;
  }
  .cell {
    display: flex;
    gap: 8px;
    align-items: center;
    min-width: 0;
  }
  .cell b {
    display: block;
    font-weight: 400;
    font-size: 1.25rem;
    line-height: 1.15;
    white-space: nowrap;
  }
  small {
    color: var(--ink-soft);
    font-size: var(--type-label);
    display: block;
    line-height: 1.25;
  }
  p {
    margin: 0;
    font-size: var(--type-label);
  }
  .whole {
    display: flex;
    flex-wrap: wrap;
    gap: 0 16px;
    font-size: var(--type-label);
    color: var(--ink-soft);
  }
  .whole b {
    color: var(--ink);
    font-weight: 400;
  }
</style>
