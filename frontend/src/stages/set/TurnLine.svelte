<script lang="ts">
  // One adjuster: how it stands, what a turn of it is worth, and how far to turn it which way.
  import type { AdjusterView, CornerView, MarkWord } from '$lib/api/client';
  import { markKindOf } from '$lib/kinds';
  import Witness from '$parts/Witness.svelte';
  import { SET } from './texts';

  type Props = {
    adjuster: AdjusterView;
    turn: CornerView['turns'][number] | undefined;
    now: boolean;
    onpick: () => void;
  };
  let { adjuster, turn, now, onpick }: Props = $props();

  const state = $derived<MarkWord>(
    turn
      ? turn.amount
        ? 'out'
        : turn.tried
          ? 'holds'
          : 'unread'
      : adjuster.worth.some((w) => !w.by_plan)
        ? 'too close to call'
        : 'unread',
  );
  const worth = $derived(
    adjuster.worth
      .filter((w) => markKindOf(w.mark) !== 'height')
      .map(
        (w, i) =>
          `${i ? '' : `${w.by_plan ? SET.byPlan(adjuster.step) : SET.worth(adjuster.step)} `}${markKindOf(w.mark)} ${w.say}`,
      )
      .join(', '),
  );
</script>

<button type="button" data-now={now || undefined} onclick={onpick}>
  <Witness {state} size={34} />
  <span class="what">
    <b>{adjuster.name}</b>
    <small>{adjuster.say_how} · {adjuster.say_room}</small>
    <small>{worth || SET.untried}</small>
  </span>
  <span class="how fig"
    >{#if turn?.amount}{turn.size}<small>{turn.way}</small>{:else}—{/if}</span
  >
</button>

<style>
  button {
    width: 100%;
    border: 0;
    border-top: 1px solid var(--edge);
    background: none;
    padding: 5px 0;
    min-height: var(--touch);
    display: grid;
    grid-template-columns: 42px minmax(0, 1fr) auto;
    gap: 8px;
    align-items: center;
    text-align: left;
    cursor: pointer;
  }
  [data-now] {
    background: linear-gradient(90deg, var(--lit), transparent);
    box-shadow: inset 5px 0 var(--paint);
    padding-left: 10px;
  }
  b {
    font-size: 1.0625rem;
  }
  small {
    color: var(--ink-soft);
    font-size: var(--type-label);
    display: block;
    line-height: 1.3;
  }
  .how {
    font-size: 1.5rem;
    white-space: nowrap;
    text-align: right;
    line-height: 1.1;
  }
  .how small {
    font-size: 1rem;
    color: var(--ink);
  }
</style>
