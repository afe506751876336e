<script lang="ts">
  // The perches to turn, in the order in which the car is lifted least.
  import type { StanceView } from '$lib/api/client';
  import { STANCE } from './texts';

  type Perch = StanceView['perches'][number];
  type Props = { perches: Perch[]; onturn: (perch: Perch) => void };
  let { perches, onturn }: Props = $props();
</script>

<div role="group" aria-label={STANCE.perches}>
  <ol class="plain">
    {#each perches as perch (perch.corner)}
      <li>
        <b>{perch.say}</b> <button type="button" class="button" onclick={() => onturn(perch)}>{STANCE.turn}</button>
      </li>
    {/each}
  </ol>
  <p class="caution">{perches[0]!.caution}</p>
</div>

<style>
  li {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 8px;
    border-top: 1px solid var(--edge);
    padding: 2px 0;
    font-size: 1.375rem;
    line-height: 1.15;
  }
  .button {
    flex: none;
    white-space: nowrap;
  }
  @media (max-width: 1150px) {
    li {
      font-size: 1.125rem;
    }
  }
</style>
