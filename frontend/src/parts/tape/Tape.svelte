<script lang="ts">
  // The tape: says what to read and with what, takes the figure, shows what it would mean. One component for every stage.
  import { untrack } from 'svelte';
  import type { Desk, Hook, Keeper } from './desk.svelte';
  import { hands, stayAwake } from '$lib/hands.svelte';
  import type { Scene } from '$lib/kinds';
  import RefusedLine from './RefusedLine.svelte';
  import { DESK, TAPE } from '../texts';
  import type { Latest } from './round.svelte';
  import TapeAsk from './TapeAsk.svelte';
  import TapeField from './TapeField.svelte';
  import TapeHelp from './TapeHelp.svelte';
  import TapeKeys from './TapeKeys.svelte';

  type Props = {
    desk: Desk<unknown, Keeper>;
    title: string;
    how: string;
    large?: string; // what is to be done, read at arm's length
    label: string;
    caution?: string;
    typing?: string; // what is to be minded once something is typed
    placeholder?: string;
    note?: string;
    hooks: Hook[];
    latest?: Latest[];
    closed?: boolean;
    lesson?: { scene: Scene; mistake: string; known: boolean } | undefined; // how it is held; at the tape until it is known
    told?: boolean; // Enter alone does what is told
    asks?: boolean; // whether something is asked: else a docked tape lies folded
  };
  let {
    desk,
    title,
    how,
    large = '',
    label,
    caution = '',
    typing = '',
    placeholder = '',
    note = '',
    hooks,
    latest = [],
    closed,
    lesson,
    told,
    asks = true,
  }: Props = $props();
  const enter = () => void (closed || desk.enter());
  const units = $derived(desk.car.view?.plan.units);
  const finest = $derived(units?.system === 'inch_fraction' ? (units.finest ?? 32) : null);
  // Under a thumb: three actions beside the digits, the others above them; what only a keyboard has is not shown.
  const keyed = $derived(hands.touch && desk.typing !== 'words'); // words are written on the system's own keys
  const acts = $derived(hooks.filter((h) => h.act && !/^Enter$|Backspace|⌫/.test(h.key)));
  // What a figure wants minded stands above it, where it was told with the step; what comes while one types comes where it moves no key: below them, docked above.
  const said = $derived(typing || (desk.preview?.caution ?? ''));
  let helping = $state(false);
  $effect(() => (hands.touch ? stayAwake() : undefined));
  // In a hand it lies along the lower edge of the page, its keys always at the same place; folded, what is behind it is seen.
  const docked = $derived(hands.touch && hands.small);
  let folded = $state(false);
  const shut = $derived(docked && folded);
  let tall = $state(0);
  $effect(() => {
    void title;
    folded = !asks;
  });
  $effect(() => {
    if (desk.refused.length) untrack(() => (desk.note = '')); // it was not kept after all
  });
  $effect(() => {
    const page = document.documentElement.style;
    page.setProperty('--dock', `${docked ? tall : 0}px`);
    return () => void page.removeProperty('--dock');
  });
  const INCH = 100;
  const tick = (i: number) => (i % 10 === 0 ? 2 : i % 5 === 0 ? 10 : 17);
</script>

<section
  class="tape noprint"
  aria-label={title}
  data-touch={hands.touch || undefined}
  data-docked={docked || undefined}
  bind:offsetHeight={tall}
>
  <svg height="26" aria-hidden="true">
    {#each { length: 200 }, i}<path d="M{i * (INCH / 10)} 26V{tick(i)}" />{/each}
  </svg>
  {#if desk.refused.length}<RefusedLine
      rows={desk.refused}
      retype={(row) => desk.retype(row)}
      again={(row) => desk.again(row)}
      discard={(row) => desk.discard(row)}
    />{/if}
  {#if docked}<button
      type="button"
      class="fold"
      aria-expanded={!shut}
      aria-label={shut ? TAPE.unfold : TAPE.fold}
      onclick={() => (folded = !shut)}>{shut ? '▴' : '▾'}</button
    >{/if}
  <TapeAsk
    {title}
    {how}
    {large}
    {shut}
    caution={keyed && !docked ? caution : said || caution}
    hooks={[
      ...(keyed ? acts.slice(3) : hooks),
      ...(desk.car.struck?.length ? [{ key: 'Z', does: DESK.putBack, act: () => desk.putBack() }] : []),
      { key: '?', does: keyed ? TAPE.held : TAPE.all, act: () => (helping = true) },
    ]}
    {latest}
    bare={keyed}
    {lesson}
  />
  {#if !shut}<TapeField {desk} {title} {label} {placeholder} {note} {closed} onhelp={() => (helping = true)} />{/if}
  {#if keyed && !closed && !shut}<TapeKeys
      {desk}
      kind={desk.typing as Exclude<typeof desk.typing, 'words'>}
      {finest}
      {acts}
      told={told ?? Boolean(large)}
      onenter={enter}
    />{/if}
  {#if keyed && !docked && said && said !== caution}<p class="caution below" role="status">{said}</p>{/if}
</section>
{#if helping}<TapeHelp {title} {how} hooks={keyed ? [] : hooks} {lesson} onclose={() => (helping = false)} />{/if}

<style>
  section {
    position: relative;
    overflow: hidden;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 370px;
    gap: var(--gap-3);
    border: 1px solid var(--tape-edge);
    border-radius: var(--round);
    background: linear-gradient(var(--tape-top), var(--tape-bottom));
  }
  svg {
    position: absolute;
    left: 0;
    bottom: 0;
    width: 100%;
  }
  path {
    stroke: var(--tape-tick);
    stroke-width: 1;
  }
  .below {
    margin: 0 12px 34px;
    grid-column: 1 / -1;
  }
  @media (max-width: 1100px) {
    section {
      grid-template-columns: minmax(0, 1fr) 320px;
    }
  }
  [data-docked] {
    position: fixed;
    inset: auto 0 0;
    z-index: 8;
    max-height: 100vh;
    max-height: 100dvh;
    border-width: 2px 0 0;
    border-radius: 0;
    gap: 4px 10px;
    grid-template-rows: auto auto minmax(0, auto);
    padding-bottom: env(safe-area-inset-bottom);
  }
  [data-docked] :global(.refused) {
    grid-row: 1;
  }
  [data-docked] :global(.ask) {
    grid-area: 2 / 1 / span 2;
  }
  [data-docked] > :global(.entry) {
    grid-area: 2 / 2;
  }
  [data-docked] > :global(.keys) {
    grid-area: 3 / 2;
  }
  [data-docked] svg {
    display: none;
  }
  .fold {
    position: absolute;
    right: 0;
    top: 0;
    z-index: 2;
    width: 52px;
    height: var(--touch);
    border: 0;
    background: none;
    font-size: 1.5rem;
    color: var(--ink);
    cursor: pointer;
  }
  [data-touch] :global(.keys) {
    grid-column: 2;
  }
  @media (max-width: 700px) {
    [data-docked] {
      grid-template-rows: auto minmax(0, auto) auto auto;
    }
    section {
      grid-template-columns: minmax(0, 1fr);
      gap: 6px;
    }
    [data-touch] :global(.keys) {
      grid-column: 1;
    }
    [data-docked] :global(.ask) {
      grid-area: 2 / 1;
    }
    [data-docked] > :global(.entry) {
      grid-area: 3 / 1;
    }
    [data-docked] > :global(.keys) {
      grid-area: 4 / 1;
    }
  }
</style>
