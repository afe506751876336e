<script lang="ts">
  // What is written down now and then: on a small page it opens under its name, on a large one it stands open.
  import type { Snippet } from 'svelte';
  import { hands } from '$lib/hands.svelte';

  type Props = { title: string; children: Snippet };
  let { title, children }: Props = $props();
</script>

<details open={!hands.small}>
  <summary>{title}</summary>
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
  @media (pointer: coarse) {
    summary {
      min-height: var(--touch);
      display: flex;
      align-items: center;
      font-size: var(--type-body);
      border-top: 1px solid var(--edge);
      color: var(--ink);
    }
    summary::before {
      content: '+';
      font-weight: 700;
      width: 22px;
    }
    details[open] > summary::before {
      content: '−';
    }
  }
</style>
