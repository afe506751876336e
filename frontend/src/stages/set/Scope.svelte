<script lang="ts">
  // Whether the whole car is turned in one lift, or the corner in hand alone.
  import { SET } from './texts';

  type Props = { whole: boolean; set: (whole: boolean) => void };
  let { whole, set }: Props = $props();
</script>

<div role="group" aria-label={SET.scope}>
  <button type="button" aria-pressed={whole} onclick={() => set(true)}>{SET.wholeLift}</button>
  <button type="button" aria-pressed={!whole} onclick={() => set(false)}>{SET.oneCorner}</button>
</div>

<style>
  div {
    display: flex;
    gap: 0;
  }
  button {
    min-height: var(--touch);
    padding: 0 16px;
    border: 1px solid var(--steel);
    background: var(--card);
    color: var(--ink);
    cursor: pointer;
  }
  [aria-pressed='true'] {
    background: var(--paint);
    border-color: var(--ink);
    font-weight: 700;
  }
</style>
