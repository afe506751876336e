<script lang="ts">
  // What opens under its name: a chapter of a long form, or what is written down now and then, which stands open on a large page.
  import type { Snippet } from 'svelte';
  import { hands } from '$lib/hands.svelte';

  type Props = { title: string; chapter?: boolean; children: Snippet };
  let { title, chapter = false, children }: Props = $props();
</script>

<details open={!hands.small}>
  <summary data-chapter={chapter || undefined}
    >{#if chapter}<h2>{title}</h2>{:else}{title}{/if}</summary
  >
  <div>{@render children()}</div>
</details>

<style>
  summary {
    cursor: pointer;
    font-size: var(--type-small);
    color: var(--ink-soft);
    padding: 4px 0;
  }
  div {
    display: grid;
    gap: 6px;
  }
  @media (pointer: coarse), (max-width: 1000px) {
    summary {
      min-height: var(--touch);
      display: flex;
      align-items: center;
      font-size: var(--type-body);
      color: var(--ink);
    }
    summary:not([data-chapter]) {
      border-top: 1px solid var(--edge);
    }
    summary::before {
      content: '+';
      font-weight: 700;
      width: 22px;
      flex: none;
    }
    details[open] > summary::before {
      content: '−';
    }
  }
</style>
