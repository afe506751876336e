<script lang="ts">
  // The round: the four corners with what is left to read at each, and the places of the one in hand. Any of them may be picked.
  import { QUANTITIES } from '$lib/kinds';
  import type { Corner } from '$lib/api/client';
  import { CORNER_WORDS, CORNERS } from '$lib/marks';
  import type { RoundDesk } from '$parts/tape/round.svelte';
  import { SET } from './texts';

  type Props = { desk: RoundDesk };
  let { desk }: Props = $props();

  const leftAt = (corner: Corner) => asksAt(corner).filter((a) => desk.wanted(a)).length;
  const open = (corner: Corner) => {
    const own = asksAt(corner);
    const first = own.find((a) => desk.wanted(a)) ?? own[0];
    if (first) desk.openAsk(first);
  };
  const asksAt = (corner: Corner) => desk.asks.filter((a) => a.corner === corner);
</script>

<nav aria-label={SET.round}>
  <div class="corners">
    {#each CORNERS as corner (corner)}
      <button type="button" data-here={corner === desk.corner || undefined} onclick={() => open(corner)}
        >{CORNER_WORDS[corner]}<small>{leftAt(corner) ? SET.leftHere(leftAt(corner)) : SET.allRead}</small></button
      >
    {/each}
  </div>
  <div class="ticks">
    {#each asksAt(desk.corner) as ask (ask.quantity)}
      <button
        type="button"
        title="{ask.title}{ask.latest ? `: ${ask.latest}` : ''}"
        aria-label="{QUANTITIES[ask.quantity].short}: {ask.title}, {desk.wanted(ask) ? 'to read' : 'read'}"
        data-wanted={desk.wanted(ask) || undefined}
        aria-current={!desk.turning && ask === desk.ask ? 'step' : undefined}
        onclick={() => desk.openAsk(ask)}>{QUANTITIES[ask.quantity].short}</button
      >
    {/each}
  </div>
</nav>

<style>
  nav {
    display: grid;
    gap: 4px;
    border-bottom: 1px solid var(--edge);
    padding-bottom: 6px;
  }
  .corners {
    display: grid;
    grid-template-columns: repeat(4, minmax(0, 1fr));
  }
  button {
    min-height: var(--touch);
    min-width: var(--touch);
    border: 0;
    background: none;
    padding: 0 2px;
    cursor: pointer;
    color: var(--ink);
    font-size: var(--type-small);
    line-height: 1.15;
  }
  .corners button {
    text-align: left;
    padding-left: 8px;
    border-bottom: 3px solid transparent;
  }
  .corners small {
    display: block;
    font-size: var(--type-small);
    font-weight: 400;
    color: var(--ink-soft);
  }
  [data-here] {
    font-weight: 700;
    border-bottom-color: var(--ink) !important;
  }
  .ticks {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(72px, 1fr));
    gap: 4px;
  }
  .ticks button {
    border: 1.5px solid var(--steel-dark);
    border-radius: var(--round);
    background: var(--steel-light);
  }
  .ticks [data-wanted] {
    background: none;
    border-style: dashed;
  }
  .ticks [aria-current] {
    background: var(--paint);
    border-color: var(--ink);
    border-style: solid;
    font-weight: 700;
  }
</style>
