<script lang="ts">
  // What is turned together: the whole car in one lift, one axle, or the corner in hand alone.
  import { SET } from './texts';

  type Props = { scope: keyof typeof SET.scopes; set: (scope: keyof typeof SET.scopes) => void };
  let { scope, set }: Props = $props();
  const scopes = Object.entries(SET.scopes) as [keyof typeof SET.scopes, string][];
</script>

<div role="group" aria-label={SET.scope}>
  {#each scopes as [name, words] (name)}
    <button type="button" aria-pressed={scope === name} onclick={() => set(name)}>{words}</button>
  {/each}
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
