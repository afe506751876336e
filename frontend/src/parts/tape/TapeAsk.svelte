<script lang="ts">
  // What is asked: place, tool, caution; what was read beside it; and what the keys do.
  import type { Scene } from '$lib/kinds';
  import type { Hook } from './desk.svelte';
  import HowTo from './HowTo.svelte';
  import type { Latest } from './round.svelte';

  type Props = {
    title: string;
    how: string;
    large: string;
    caution: string;
    hooks: Hook[];
    latest: Latest[];
    bare?: boolean;
    lesson?: { scene: Scene; mistake: string; known: boolean } | undefined;
    shut?: boolean; // only what is asked, in a line
  };
  let { title, how, large, caution, hooks, latest, bare = false, lesson, shut = false }: Props = $props();
</script>

<div class="ask" data-shut={shut || undefined}>
  <h2>{title}</h2>
  {#if !shut}{@render whole()}{/if}
</div>

{#snippet whole()}
  {#if large}<p class="large fig">{large}</p>{/if}
  <p>{how}</p>
  {#if lesson && !lesson.known}<HowTo scene={lesson.scene} mistake={lesson.mistake} />{/if}
  {#if caution}<p class="caution"><b>Caution.</b> {caution}</p>{/if}
  <div class="hooks">
    {#each latest as one, i (i)}
      <div data-now={one.now || undefined}><span>{one.name}</span><b class="fig">{one.say}</b></div>
    {/each}
    {#each hooks as hook, i (i)}
      {#if hook.act}<button type="button" onclick={hook.act}
          >{#if !bare}<span>{hook.key}</span>{/if}<b>{hook.does}</b></button
        >
      {:else}<div><span>{hook.key}</span><b>{hook.does}</b></div>{/if}
    {/each}
  </div>
{/snippet}

<style>
  .ask {
    padding: 12px 0 30px var(--gap-4);
    min-width: 0;
    display: grid;
    align-content: space-between;
    gap: 4px;
  }
  h2 {
    font-size: var(--type-head);
    line-height: 1.2;
  }
  p {
    color: var(--paint-ink);
  }
  .large {
    font-size: 2.5rem;
    line-height: 1.1;
    color: var(--ink);
  }
  .caution {
    color: var(--ink);
    font-size: 1rem;
    justify-self: start;
  }
  .hooks {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 15px;
    align-items: end;
  }
  .hooks > * {
    background: none;
    border: 0;
    padding: 0;
    text-align: left;
    color: var(--ink);
    min-height: var(--touch);
    display: grid;
    align-content: center;
    line-height: 1.2;
  }
  .hooks button {
    min-width: var(--touch);
  }
  button {
    cursor: pointer;
  }
  button:hover b {
    text-decoration: underline;
  }
  span {
    color: var(--paint-ink);
    font-size: var(--type-label);
  }
  .hooks b {
    font-size: 0.9rem;
    white-space: nowrap;
  }
  @media (max-width: 700px) {
    .ask {
      padding: 10px 12px 0;
    }
  }
  :global([data-docked]) .ask {
    align-content: start;
    padding: 8px 12px 4px;
    overflow-y: auto;
    min-height: 0;
  }
  :global([data-docked]) h2 {
    padding-right: 44px;
    font-size: 1.1875rem;
  }
  :global([data-docked]) p {
    font-size: 0.9375rem;
    line-height: 1.25;
  }
  :global([data-docked]) .large {
    font-size: 1.75rem;
  }
  :global([data-docked]) .hooks {
    gap: 0 14px;
  }
  [data-now] b {
    border-bottom: 3px solid var(--ink);
  }
</style>
