<script lang="ts">
  // The tape: says what to read and with what, takes the figure, shows what it would mean. One component for every stage.
  import type { Snippet } from 'svelte';
  import type { MarkWord } from '$lib/api/client';
  import type { Waiting } from '$lib/outbox.svelte';
  import RefusedLine from './RefusedLine.svelte';
  import Witness from './Witness.svelte';

  type Hook = { key: string; does: string; act?: () => void };
  type Props = {
    title: string;
    how: string;
    caution?: string;
    label: string;
    value: string;
    placeholder?: string;
    means?: string;
    large?: string;
    state?: MarkWord | null;
    refusal?: string;
    note?: string;
    hooks: Hook[];
    readings?: { name: string; say: string; now: boolean }[];
    oninput: (text: string) => void;
    onenter: (again: boolean) => void;
    onstep: (by: 1 | -1) => void;
    onkey: (key: string) => boolean;
    refused?: {
      rows: Waiting[];
      retype: (row: Waiting) => void;
      again: (row: Waiting) => void;
      discard: (row: Waiting) => void;
    };
    extra?: Snippet;
  };
  let {
    title,
    how,
    caution = '',
    label,
    value,
    placeholder = '',
    means = '',
    large = '',
    state = null,
    refusal = '',
    note = '',
    hooks,
    readings = [],
    oninput,
    onenter,
    onstep,
    onkey,
    refused,
    extra,
  }: Props = $props();

  let field: HTMLInputElement;
  const INCH = 100;
  // Hands stay on the keys: the field has the focus whenever what is asked changes, and only then: a late answer does not take it from elsewhere.
  const asked = $derived(title);
  $effect(() => {
    void asked;
    field.focus({ preventScroll: true });
  });

  function keydown(event: KeyboardEvent): void {
    if (event.isComposing || event.ctrlKey || event.metaKey || event.altKey) return;
    const taken =
      event.key === 'Enter'
        ? (event.repeat || onenter(event.shiftKey), true) // a key held down is one key
        : event.key === 'ArrowDown'
          ? (onstep(1), true)
          : event.key === 'ArrowUp'
            ? (onstep(-1), true)
            : event.key === 'Escape'
              ? (oninput(''), true)
              : onkey(event.key);
    if (taken) event.preventDefault();
  }
</script>

<section class="tape noprint" aria-label={title}>
  <svg class="ticks" height="26" aria-hidden="true">
    {#each { length: 200 }, i}<path d="M{i * (INCH / 10)} 26V{i % 10 === 0 ? 2 : i % 5 === 0 ? 10 : 17}" />{/each}
  </svg>
  {#if refused?.rows.length}<RefusedLine {...refused} />{/if}
  <div class="ask">
    <h2>{title}</h2>
    <p>{how}</p>
    {#if caution}<p class="caution"><b>Caution.</b> {caution}</p>{/if}
    <div class="hooks">
      {#each readings as reading (reading.name)}
        <div data-now={reading.now || undefined}><span>{reading.name}</span><b class="fig">{reading.say}</b></div>
      {/each}
      {#each hooks as hook (hook.key)}
        {#if hook.act}
          <button type="button" onclick={hook.act}><span>{hook.key}</span><b>{hook.does}</b></button>
        {:else}
          <div><span>{hook.key}</span><b>{hook.does}</b></div>
        {/if}
      {/each}
      {@render extra?.()}
    </div>
  </div>
  <div class="entry">
    <label class="hidden" for="tape-field">{label}: {title}</label>
    <input
      id="tape-field"
      class="fig"
      bind:this={field}
      {value}
      {placeholder}
      oninput={(e) => oninput(e.currentTarget.value)}
      onkeydown={keydown}
      autocomplete="off"
      autocapitalize="off"
      spellcheck="false"
      inputmode="text"
      enterkeyhint="next"
      maxlength="60"
      aria-invalid={refusal ? 'true' : undefined}
      aria-describedby="tape-means"
    />
    <p id="tape-means" aria-live="polite" data-refused={refusal ? '' : undefined}>
      {#if refusal}{refusal}
      {:else if means}
        {#if state}<Witness {state} size={26} />{/if}
        <span
          >{#if large}<b class="large fig">{large}</b>{/if}{means}{#if state}&nbsp;· <b>{state}</b>{/if}</span
        >
      {:else}{note}{/if}
    </p>
    <button type="button" class="go" onclick={() => onenter(false)} aria-label="Enter">↵</button>
  </div>
</section>

<style>
  .tape {
    position: relative;
    overflow: hidden;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 370px;
    gap: var(--gap-3);
    border: 1px solid var(--tape-edge);
    border-radius: var(--round);
    background: linear-gradient(var(--tape-top), var(--tape-bottom));
  }
  .ticks {
    position: absolute;
    left: 0;
    bottom: 0;
    width: 100%;
  }
  .ticks path {
    stroke: var(--tape-tick);
    stroke-width: 1;
  }
  .ask {
    padding: 12px 0 30px var(--gap-4);
    min-width: 0;
    display: grid;
    align-content: space-between;
    gap: 4px;
  }
  h2 {
    font-size: var(--type-head);
    line-height: 1.2;
  }
  p {
    color: var(--paint-ink);
  }
  .caution {
    color: var(--ink);
    background: #fff4cf;
    border-left: 6px solid var(--rust);
    padding: 2px 8px;
    justify-self: start;
  }
  .hooks {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 15px;
    align-items: end;
  }
  .hooks > div,
  .hooks > button {
    background: none;
    border: 0;
    padding: 0;
    text-align: left;
    color: var(--ink);
    min-height: var(--touch);
    display: grid;
    align-content: center;
    line-height: 1.2;
  }
  .hooks > button {
    cursor: pointer;
  }
  .hooks > button:hover b {
    text-decoration: underline;
  }
  .hooks span {
    color: var(--paint-ink);
    font-size: 0.8125rem;
  }
  .hooks b {
    font-size: 0.9rem;
    white-space: nowrap;
  }
  [data-now] b {
    border-bottom: 3px solid var(--ink);
  }
  .entry {
    position: relative;
    z-index: 1;
    margin: 12px 12px 12px 0;
    min-height: 144px;
    background: var(--entry);
    border: 2px solid var(--ink);
    border-radius: var(--round);
    padding: 4px 14px 8px;
    display: grid;
    grid-template-rows: auto 1fr;
  }
  .entry:focus-within {
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
  #tape-means {
    color: var(--ink-soft);
    font-size: 0.95rem;
    line-height: 1.25;
    display: flex;
    gap: 8px;
    align-items: start;
  }
  #tape-means b {
    color: var(--ink);
  }
  #tape-means[data-refused] {
    color: var(--rust);
    font-weight: 700;
  }
  .large {
    display: block;
    font-size: 1.625rem;
    line-height: 1.1;
  }
  .go {
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
  @media (max-width: 1100px) {
    .tape {
      grid-template-columns: minmax(0, 1fr) 320px;
    }
  }
</style>
