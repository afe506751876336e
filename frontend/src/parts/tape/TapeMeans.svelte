<script lang="ts">
  // What the figure would mean, with its verdict; or what is wrong with it; or a word on where one is.
  import Witness from '../Witness.svelte';
  import type { Desk, Keeper } from './desk.svelte';

  type Props = { desk: Desk<unknown, Keeper>; note: string };
  let { desk, note }: Props = $props();
  const state = $derived(desk.preview?.state ?? null);
</script>

<p id="tape-means" aria-live="polite" class:no={desk.refusal}>
  {#if desk.refusal}{desk.refusal}
  {:else if desk.means}
    {#if state}<Witness {state} size={26} />{/if}
    <span
      >{#if desk.preview?.large}<b class="large fig">{desk.preview.large}</b>{/if}{desk.means}{#if state}&nbsp;· <b
          >{state}</b
        >{/if}</span
    >
  {:else}{desk.note || note}{/if}
</p>

<style>
  p {
    font-size: 0.95rem;
    line-height: 1.25;
    display: flex;
    gap: 8px;
    align-items: start;
  }
  p:not(.no) {
    color: var(--ink-soft);
  }
  b {
    color: var(--ink);
  }
  .large {
    display: block;
    font-size: 1.625rem;
    line-height: 1.1;
  }
</style>
