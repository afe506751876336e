<script lang="ts">
  // One corner of the walk: its number, and what is turned there in large type.
  import type { Corner } from '$lib/api/client';
  import { CORNER_WORDS } from '$lib/marks';
  import type { LiftLine } from './lift';
  import { SET } from './texts';

  type Props = {
    corner: Corner;
    lines: LiftLine[];
    number: number;
    now: string | undefined;
    onpick: (corner: Corner, adjuster: string) => void;
  };
  let { corner, lines, number, now, onpick }: Props = $props();
  const done = $derived(lines.every((l) => l.done));
  const here = $derived(lines.some((l) => l.adjuster === now));
  let row: HTMLLIElement;
  $effect(() => {
    if (here) row.scrollIntoView({ block: 'nearest' });
  });
</script>

<li bind:this={row} data-here={here || undefined}>
  <span class="stop" data-done={done || undefined} aria-hidden="true">{number}</span>
  <div>
    {#if done && !here}<p>{CORNER_WORDS[corner]}: {lines.map((l) => `${l.name} ${l.size} ${l.way}`).join(', ')}</p>{/if}
    {#each done && !here ? [] : lines as line (line.adjuster)}
      <button
        type="button"
        data-now={line.adjuster === now || undefined}
        data-done={line.done || undefined}
        onclick={() => onpick(corner, line.adjuster)}
      >
        <span>{CORNER_WORDS[corner]}, {line.name}</span>
        <b class="fig">{line.size} <small>{line.way}</small></b>
        {#if line.stuck || line.done}<em>{line.stuck ? SET.isStuck : SET.isDone}</em>{/if}
      </button>
    {/each}
  </div>
</li>

<style>
  li {
    display: grid;
    grid-template-columns: 40px minmax(0, 1fr);
    gap: 6px;
    border-top: 1px solid var(--edge);
    padding: 2px 0;
  }
  [data-here] {
    background: linear-gradient(90deg, var(--lit), transparent);
    box-shadow: inset 5px 0 var(--paint);
  }
  .stop {
    width: 30px;
    height: 30px;
    margin: 7px 0 0 10px;
    border: 2px solid var(--ink);
    border-radius: 50%;
    display: grid;
    place-items: center;
    font-weight: 700;
  }
  [data-here] .stop,
  .stop[data-done] {
    background: var(--paint);
  }
  p {
    margin: 0;
    color: var(--ink-soft);
    line-height: 1.3;
    padding: 5px 0;
  }
  button {
    width: 100%;
    min-height: var(--touch);
    border: 0;
    background: none;
    text-align: left;
    cursor: pointer;
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto auto;
    gap: 10px;
    align-items: baseline;
    color: var(--ink);
  }
  button[data-now] span {
    font-weight: 700;
  }
  [data-done] b {
    color: var(--ink-soft);
  }
  b {
    font-size: 1.5rem;
    font-weight: 400;
    white-space: nowrap;
  }
  small {
    font-size: 1rem;
  }
  em {
    font-style: normal;
    color: var(--ink-soft);
    font-size: var(--type-small);
  }
</style>
