<script lang="ts">
  // The round as four corners of small ticks: what is read, what is wanted, where one is. Any of them may be picked.
  import { QUANTITIES } from '$lib/kinds';
  import type { Corner } from '$lib/api/client';
  import { CORNER_WORDS, CORNERS } from '$lib/marks';
  import type { RoundDesk } from '$parts/tape/round.svelte';
  import { SET } from './texts';

  type Props = { desk: RoundDesk };
  let { desk }: Props = $props();

  const MANY = 6; // places at a corner beyond which only the one in hand has its name under it
  const asksAt = (corner: Corner) => desk.asks.filter((a) => a.corner === corner);
</script>

<nav aria-label={SET.round}>
  {#each CORNERS as corner (corner)}
    <div data-here={corner === desk.corner || undefined} data-many={asksAt(corner).length > MANY || undefined}>
      <span>{CORNER_WORDS[corner]}</span>
      <div class="ticks">
        {#each asksAt(corner) as ask (ask.quantity)}
          <button
            type="button"
            title="{ask.title}{ask.latest ? `: ${ask.latest}` : ''}"
            aria-label="{ask.title}, {desk.wanted(ask) ? 'to read' : 'read'}"
            data-wanted={desk.wanted(ask) || undefined}
            aria-current={!desk.turning && ask === desk.ask ? 'step' : undefined}
            onclick={() => desk.openAsk(ask)}><small>{QUANTITIES[ask.quantity].short}</small></button
          >
        {/each}
      </div>
    </div>
  {/each}
</nav>

<style>
  nav {
    display: grid;
    grid-template-columns: repeat(4, 1fr);
    gap: 10px;
    border-bottom: 1px solid var(--edge);
    padding-bottom: 6px;
  }
  span {
    font-size: var(--type-small);
    color: var(--ink-soft);
  }
  [data-here] span {
    color: var(--ink);
    font-weight: 700;
  }
  .ticks {
    display: flex;
  }
  button {
    flex: 1;
    height: 30px;
    border: 0;
    background: none;
    padding: 0;
    cursor: pointer;
    position: relative;
  }
  small {
    position: absolute;
    inset: auto 0 -3px;
    font-size: 0.6875rem;
    line-height: 1;
    color: var(--ink-soft);
    text-align: center;
  }
  button::after {
    content: '';
    position: absolute;
    inset: 4px 2px 14px;
    border-radius: 2px;
    background: var(--steel-dark);
    border: 1.5px solid var(--steel-dark);
  }
  button[data-wanted]::after {
    background: none;
    border-style: dashed;
  }
  button[aria-current]::after {
    background: var(--paint);
    border-color: var(--ink);
    border-style: solid;
    inset: 2px 2px 12px;
  }
  [data-many] small {
    display: none;
  }
  [data-many] [aria-current] small {
    display: block;
    inset: auto -30px -3px;
  }
  @media (pointer: coarse) {
    button {
      height: var(--touch);
    }
    button::after {
      inset: 12px 2px 16px;
    }
  }
</style>
