<script lang="ts">
  // The tape's own keys, for a thumb in a glove: digits, what a figure of this kind is typed with, and what else can be done here.
  import type { Desk, Hook, Keeper } from './desk.svelte';
  import InchStrip from './InchStrip.svelte';
  import { SAID, SIGNS, type Typing } from './keys';
  import { TAPE } from '../texts';

  type Props = {
    desk: Desk<unknown, Keeper>;
    kind: Exclude<Typing, 'words'>;
    finest: number | null;
    acts: Hook[];
    told?: boolean;
    onenter: () => void;
  };
  let { desk, kind, finest, acts, told = false, onenter }: Props = $props();

  const inches = $derived(kind === 'length' && finest !== null);
  const signs = $derived(SIGNS[inches ? 'fraction' : kind]);
  const rows = $derived([
    ['1', '2', '3'],
    ['4', '5', '6', signs[0]],
    ['7', '8', '9', signs[1]],
    ['.', '0', ' ', signs[2]],
  ]);
  const put = (key: string) => desk.type((desk.marked ? '' : desk.typed) + (key === '−' ? '-' : key));
  const back = () => (desk.typed ? desk.type(desk.marked ? '' : desk.typed.slice(0, -1)) : desk.strike());
</script>

<div class="keys">
  {#if inches && finest}<InchStrip typed={desk.typed} {finest} ontype={(typed) => desk.type(typed)} />{/if}
  {#if told}<button type="button" data-main disabled={desk.typed !== ''} onclick={onenter}>{TAPE.asTold}</button>{/if}
  <div class="pad" role="group" aria-label={TAPE.keys}>
    {#each rows as row, r (r)}
      {#each row as key (key)}
        <button
          type="button"
          data-sign={/\D/.test(key) || undefined}
          aria-label={SAID[key] ?? key}
          onclick={() => put(key)}>{key === ' ' ? '␣' : key}</button
        >
      {/each}
      {#if r === 0}<button type="button" data-sign aria-label={desk.typed ? TAPE.back : TAPE.strike} onclick={back}
          >⌫</button
        >{/if}
      {#if r < 3}
        {#if acts[r]?.act}<button type="button" data-act onclick={() => acts[r]!.act!()}
            >{acts[r]!.hand ?? acts[r]!.does}</button
          >
        {:else}<span></span>{/if}
      {:else}<button type="button" data-main aria-label={TAPE.enter} onclick={onenter}>↵</button>{/if}
    {/each}
  </div>
</div>

<style>
  .keys {
    display: grid;
    gap: 8px;
    padding: 0 12px 34px;
    min-width: 0;
    position: relative;
    z-index: 1;
  }
  .pad {
    display: grid;
    grid-template-columns: repeat(4, minmax(0, 1fr)) minmax(64px, 1.1fr);
    gap: 6px;
  }
  button {
    min-height: 56px;
    min-width: 0;
    border: 1px solid var(--tape-edge);
    border-radius: var(--round);
    background: var(--card);
    font-size: 1.5rem;
    font-weight: 700;
    color: var(--ink);
    padding: 0 2px;
    touch-action: manipulation;
    user-select: none;
    cursor: pointer;
  }
  :global([data-docked]) .keys {
    gap: 5px;
    padding: 0 12px 8px;
    align-self: end;
  }
  :global([data-docked]) .pad {
    gap: 5px;
  }
  :global([data-docked]) button {
    min-height: 48px;
  }
  [data-sign],
  [data-act] {
    background: var(--lit);
  }
  [data-act] {
    font-size: 0.9375rem;
    line-height: 1.15;
    overflow-wrap: anywhere;
  }
  [data-main] {
    background: var(--layout);
    color: var(--paper);
  }
  :global([data-docked]) [data-act] {
    font-size: 0.875rem;
    line-height: 1.05;
  }
  button:disabled {
    opacity: 0.4;
  }
  button:active {
    background: var(--paint);
  }
</style>
