<script lang="ts">
  // The figure as it is typed, large, and under it what it would mean.
  import { hands } from '$lib/hands.svelte';
  import type { Desk, Keeper } from './desk.svelte';
  import TapeMeans from './TapeMeans.svelte';

  type Props = {
    desk: Desk<unknown, Keeper>;
    title: string;
    label: string;
    placeholder: string;
    note: string;
    closed?: boolean;
    onhelp: () => void;
  };
  let { desk, title, label, placeholder, note, closed = false, onhelp }: Props = $props();

  let field: HTMLInputElement;
  // Hands stay on the keys: the field has the focus whenever what is asked changes, and only then: a late answer does not take it from elsewhere.
  const asked = $derived(title);
  $effect(() => {
    void asked;
    field.focus({ preventScroll: true });
  });

  // A figure that is typed again is replaced by the first key, not added to.
  $effect(() => {
    if (desk.marked) field.select(); // at once: a key that comes later has taken its place already
  });

  const enter = (again: boolean) => void (closed || desk.enter(again));
  function press(event: KeyboardEvent): boolean {
    if (event.key === 'Enter') return (event.repeat || enter(event.shiftKey), true); // a key held down is one key
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp')
      return (closed || desk.step(event.key === 'ArrowDown' ? 1 : -1), true);
    if (event.key === 'Escape') return desk.key(event.key) || (desk.type(''), true);
    if (event.key === '?' && !desk.typed) return (onhelp(), true);
    return desk.key(event.key);
  }
  function keydown(event: KeyboardEvent): void {
    if (event.isComposing || event.ctrlKey || event.metaKey || event.altKey) return;
    if (press(event)) event.preventDefault();
  }
</script>

<div class="entry" data-touch={hands.touch || undefined}>
  <label class="hidden" for="tape-field">{label}: {title}</label>
  <input
    id="tape-field"
    class="fig"
    bind:this={field}
    value={closed ? '' : desk.typed}
    {placeholder}
    oninput={(e) => closed || desk.type(e.currentTarget.value)}
    onkeydown={keydown}
    autocomplete="off"
    autocapitalize="off"
    spellcheck="false"
    inputmode={hands.touch && desk.typing !== 'words' ? 'none' : 'text'}
    enterkeyhint="next"
    maxlength="60"
    aria-invalid={desk.refusal ? 'true' : undefined}
    aria-describedby="tape-means"
  />
  <TapeMeans {desk} {note} />
  {#if !hands.touch}<button type="button" onclick={() => enter(false)} aria-label="Enter">↵</button>{/if}
</div>

<style>
  div {
    position: relative;
    z-index: 1;
    margin: 12px 12px 12px 0;
    min-height: 144px;
    background: var(--entry);
    border: 2px solid var(--ink);
    border-radius: var(--round);
    padding: 4px 14px 8px;
    display: grid;
    grid-template-rows: auto minmax(0, 1fr);
  }
  @media (max-width: 700px) {
    div {
      margin: 0 12px 4px;
      min-height: 112px;
    }
  }
  /* Whatever is said of what is typed, the keys below stay where they are. */
  div[data-touch] {
    height: 148px;
    overflow: hidden;
  }
  div[data-touch] :global(#tape-means) {
    overflow-y: auto;
    min-height: 0;
  }
  :global([data-docked]) div[data-touch] {
    height: 104px;
    min-height: 0;
    margin: 0 12px;
    padding: 0 10px 4px;
  }
  :global([data-docked]) input {
    font-size: 2.25rem;
    min-height: var(--touch);
  }
  div:focus-within {
    outline: 3px solid var(--layout);
    outline-offset: 1px;
  }
  input {
    width: calc(100% - 48px);
    border: 0;
    background: none;
    font-size: var(--type-reading);
    line-height: 1.15;
    outline: none;
    caret-color: var(--paint);
    padding: 0;
  }
  input::placeholder {
    color: var(--steel-dark);
    opacity: 0.7;
    font-size: 1.5rem;
  }
  button {
    position: absolute;
    right: 8px;
    top: 8px;
    width: var(--touch);
    height: var(--touch);
    border: 1px solid var(--steel);
    border-radius: var(--round);
    background: var(--card);
    font-size: 1.25rem;
    cursor: pointer;
  }
</style>
