<script lang="ts">
  // The chapters of a plan: how far each is given, and what can be answered from it or what that still wants.
  import type { Snippet } from 'svelte';
  import Card from '$parts/form/Card.svelte';
  import { DRAWN } from '../texts';
  import type { Chapter } from './ask';
  import { answersOf, givenOf } from './asks';
  import type { PlanDesk } from './plan-desk.svelte';

  type Props = { desk: PlanDesk; children: Snippet };
  let { desk, children }: Props = $props();
  let list: HTMLElement;
  // The chapter in hand is in sight with what is chosen in it.
  $effect(() => {
    const { chapter } = desk;
    if (chapter !== 'dimensions') list.querySelector('[data-now]')?.scrollIntoView({ block: 'nearest' });
  });
  const answers = $derived(answersOf(desk.sheet.draft, desk.every));
  const chapters = Object.entries(DRAWN.chapters) as [Chapter, string][];
  const left = (wants: string[]) =>
    `${DRAWN.more(wants.length)} ${wants.slice(0, 2).join(', ')}${wants.length > 2 ? '…' : ''}`;
</script>

<Card title={DRAWN.can}>
  <ul class="plain" bind:this={list}>
    {#each chapters as [chapter, words] (chapter)}
      {@const answer = answers.find((a) => a.chapter === chapter)}
      <li data-can={answer?.left.length === 0 || undefined} data-now={desk.chapter === chapter || undefined}>
        <button type="button" aria-pressed={desk.chapter === chapter} onclick={() => desk.turnTo(chapter)}>
          <b>{words}</b><span class="fig">{givenOf(desk.every, chapter)}</span>
          {#if answer}<small>{answer.says}: {answer.left.length ? left(answer.left) : DRAWN.canNow}</small>{/if}
        </button>
        {#if desk.chapter === chapter}{@render children()}{/if}
      </li>
    {/each}
  </ul>
</Card>

<style>
  li {
    border-top: 1px solid var(--edge);
    padding: 0 0 0 14px;
    box-shadow: inset 4px 0 var(--steel-light);
  }
  [data-can] {
    box-shadow: inset 4px 0 var(--paint);
  }
  [data-now] button[aria-pressed] {
    background: linear-gradient(90deg, var(--tape-top), transparent);
    margin-left: -10px;
    padding-left: 10px;
  }
  button {
    border: 0;
    background: none;
    padding: 2px 0;
    width: 100%;
    min-height: var(--touch);
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    align-content: center;
    column-gap: 12px;
    text-align: left;
    cursor: pointer;
  }
  b {
    font-weight: 400;
  }
  [data-can] b,
  [data-now] b {
    font-weight: 700;
  }
  small {
    color: var(--ink-soft);
    grid-column: 1 / -1;
  }
</style>
