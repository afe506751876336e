<script lang="ts">
  // A card for each perch: how its corner stands and what it carries, thread left, preload, and the strip of its travel.
  import type { CarView, StanceView } from '$lib/api/client';
  import { CORNER_WORDS, markOf } from '$lib/marks';
  import Witness from '$parts/Witness.svelte';
  import Strip from './Strip.svelte';
  import { STANCE } from './texts';

  type Props = { view: CarView; stance: StanceView; onpick: (corner: StanceView['corners'][number]['corner']) => void };
  let { view, stance, onpick }: Props = $props();
</script>

<div class="cards">
  {#each stance.corners as c (c.corner)}
    {@const mark = markOf(view, `${c.corner}.height`)}
    {@const perch = view.corners[c.corner].adjusters.find((a) => a.raises && a.kind !== 'splines')}
    <section class="card" aria-label={CORNER_WORDS[c.corner]}>
      <button type="button" onclick={() => onpick(c.corner)}>
        <Witness state={mark.state} size={26} />
        <span><small>{CORNER_WORDS[c.corner]}</small><b class="fig">{mark.say || '…'}</b></span>
      </button>
      <small
        >{mark.say_aim || 'no aim'}{#if c.expected}, {STANCE.then} <b class="fig">{c.expected}</b>{/if}{#if c.load}, {STANCE.load}
          <b class="fig">{c.load}</b>{/if}</small
      >
      {#if c.strip}<Strip
          strip={c.strip}
          label="{CORNER_WORDS[c.corner]}: {c.strip.lines.map(([line]) => line).join(' ')}"
          height={90}
        />{/if}
      <small
        >{#if c.strip?.bump_left}{STANCE.bump} <b class="fig">{c.strip.bump_left}</b>{/if}{#if c.strip?.droop_left}, {STANCE.droop}
          <b class="fig">{c.strip.droop_left}</b>{/if}</small
      >
      <small>{perch ? STANCE.left(perch.room) : STANCE.noPerch}</small>
      {#each c.springs as s, i (i)}{#if s.preload}<small data-loose={s.loose || undefined}>{s.preload}</small
          >{/if}{/each}
    </section>
  {/each}
</div>

<style>
  .cards {
    display: grid;
    grid-template-columns: repeat(4, minmax(0, 1fr));
    gap: 8px;
  }
  section {
    padding: 2px 8px 6px;
    display: grid;
    gap: 2px;
    align-content: start;
    min-width: 0;
  }
  button {
    display: flex;
    gap: 6px;
    align-items: center;
    background: none;
    border: 0;
    padding: 0;
    text-align: left;
    cursor: pointer;
    min-height: var(--touch);
    color: var(--ink);
    min-width: 0;
  }
  button:hover b {
    text-decoration: underline;
  }
  button b {
    display: block;
    font-weight: 400;
    font-size: 1.1875rem;
    line-height: 1.1;
    white-space: nowrap;
  }
  small {
    color: var(--ink-soft);
    font-size: var(--type-label);
    line-height: 1.2;
  }
  button small {
    display: block;
  }
  small b {
    color: var(--ink);
    font-weight: 400;
  }
  [data-loose] {
    color: var(--rust);
    font-weight: 700;
  }
  @media (max-width: 1000px) {
    .cards {
      grid-template-columns: repeat(2, 1fr);
    }
  }
</style>
