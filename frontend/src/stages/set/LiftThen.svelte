<script lang="ts">
  // What the car would read once the lift is done: a line a kind of mark, in walking order of the corners.
  import type { CarView } from '$lib/api/client';
  import { MARK_KINDS, markKindOf } from '$lib/kinds';
  import { SET } from './texts';

  type Props = { expected: NonNullable<CarView['lift']>['expected']; afterwards: string };
  let { expected, afterwards }: Props = $props();
  const kinds = $derived([...new Set(expected.map((e) => markKindOf(e.mark)))]);
</script>

<div class="then">
  {#each kinds as kind (kind)}
    <p>
      {SET.then}
      {MARK_KINDS[kind]!.short}
      {#each expected.filter((e) => markKindOf(e.mark) === kind) as e (e.mark)}
        <b class="fig" data-verdict={e.verdict} title="{e.say_u}, {e.say_aim}: {SET.doubt[e.verdict]}">{e.say}</b>
      {/each}
    </p>
  {/each}
</div>
<p class="soft">{afterwards}</p>

<style>
  .then {
    border-top: 2px solid var(--ink);
    padding-top: 4px;
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
    gap: 0 18px;
  }
  p {
    margin: 0;
    color: var(--ink-soft);
  }
  b {
    color: var(--ink);
    white-space: nowrap;
  }
  b + b::before {
    content: '· ';
    color: var(--ink-soft);
  }
  [data-verdict='out'] {
    color: var(--rust);
  }
</style>
