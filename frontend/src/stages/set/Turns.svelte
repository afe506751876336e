<script lang="ts">
  // What to turn at one corner, what a turn is worth, and what the car would read afterwards.
  import type { CornerView } from '$lib/api/client';
  import { link } from '$lib/router.svelte';
  import Witness from '$parts/Witness.svelte';
  import { SET } from './texts';

  type Props = {
    answer: CornerView;
    slug: string;
    title: string;
    now: string | undefined;
    onpick: (adjuster: string) => void;
  };
  let { answer, slug, title, now, onpick }: Props = $props();

  const turnOf = (id: string) => answer.turns.find((t) => t.adjuster === id);
  const kind = (mark: string) => mark.split('.')[1] ?? '';
</script>

<section aria-label={title}>
  <h2>{answer.sentence || title}</h2>
  <p class="soft">{answer.why_not || answer.reason}</p>
  {#if answer.expected.length}
    <div class="after">
      {#each answer.expected as e (e.mark)}
        <div>
          {SET.would[kind(e.mark)]}<b class="fig">{e.say} <small>{e.say_u}</small></b>{e.say_aim} · {SET.doubt[
            e.verdict
          ]}
        </div>
      {/each}
    </div>
  {/if}
  {#if answer.adjusters.length === 0}
    <a class="button" href="/cars/{slug}/plan" use:link>{SET.toPlan}</a>
  {/if}
  {#each answer.adjusters as adjuster (adjuster.id)}
    {@const turn = turnOf(adjuster.id)}
    <button type="button" class="turn" data-now={now === adjuster.id || undefined} onclick={() => onpick(adjuster.id)}>
      <Witness
        state={turn
          ? turn.amount
            ? 'out'
            : turn.say === 'leave it'
              ? 'holds'
              : 'unread'
          : adjuster.worth.some((w) => !w.by_plan)
            ? 'too close to call'
            : 'unread'}
        size={34}
      />
      <span class="what">
        <b>{adjuster.name}</b>
        <small>{adjuster.say_how} · {adjuster.say_room}</small>
        <small>
          {#each adjuster.worth.filter((w) => kind(w.mark) !== 'height') as worth, i (worth.mark)}{i
              ? ', '
              : `${worth.by_plan ? SET.byPlan : SET.worth} `}{kind(worth.mark)}
            {worth.say}{:else}{SET.untried}{/each}
        </small>
      </span>
      <span class="how fig">
        {#if turn?.amount}{turn.size}<small>{turn.way}</small>{:else}—{/if}
      </span>
    </button>
  {/each}
</section>

<style>
  h2 {
    font-size: 1.125rem;
  }
  .turn {
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
  .turn[data-now] {
    background: linear-gradient(90deg, #f6d87366, transparent);
    box-shadow: inset 5px 0 var(--paint);
    padding-left: 10px;
  }
  .what b {
    font-size: 1.0625rem;
  }
  small {
    color: var(--ink-soft);
    font-size: 0.8125rem;
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
  p {
    margin-bottom: 6px;
  }
  .after {
    border-top: 2px solid var(--ink);
    padding: 4px 0;
    display: grid;
    grid-template-columns: 1fr 1fr;
    font-size: var(--type-small);
    color: var(--ink-soft);
  }
  .after b {
    font-size: 1.25rem;
    color: var(--ink);
    display: block;
    font-weight: 400;
  }
  .after small {
    display: inline;
  }
</style>
