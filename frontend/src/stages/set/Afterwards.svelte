<script lang="ts">
  // What the car would read after the turns, and whether that would hold.
  import type { CornerView } from '$lib/api/client';
  import { cornerName, markKindOf } from '$lib/kinds';
  import { SET } from './texts';

  type Props = { expected: CornerView['expected'] };
  let { expected }: Props = $props();
</script>

<div class="after">
  {#each expected as e (e.mark)}
    <div>
      {SET.would(cornerName(markKindOf(e.mark)))}<b class="fig">{e.say} <small>{e.say_u}</small></b>{e.say_aim} · {SET
        .doubt[e.verdict]}
    </div>
  {/each}
</div>

<style>
  .after {
    border-top: 2px solid var(--ink);
    padding: 4px 0;
    display: grid;
    grid-template-columns: 1fr 1fr;
    font-size: var(--type-small);
    color: var(--ink-soft);
  }
  b {
    font-size: 1.25rem;
    color: var(--ink);
    display: block;
    font-weight: 400;
  }
  small {
    color: var(--ink-soft);
    font-size: var(--type-label);
  }
</style>
