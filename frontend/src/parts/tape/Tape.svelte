<script lang="ts">
  // The tape: says what to read and with what, takes the figure, shows what it would mean. One component for every stage.
  import type { Desk, Hook, Keeper } from './desk.svelte';
  import { hands, stayAwake } from '$lib/hands.svelte';
  import type { Scene } from '$lib/kinds';
  import RefusedLine from './RefusedLine.svelte';
  import { TAPE } from '../texts';
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
  }: Props = $props();
  const enter = () => void (closed || desk.enter());
  const units = $derived(desk.car.view?.plan.units);
  const finest = $derived(units?.system === 'inch_fraction' ? (units.finest ?? 32) : null);
  // Under a thumb: three actions beside the digits, the others above them; what only a keyboard has is not shown.
  const keyed = $derived(hands.touch && desk.typing !== 'words'); // words are written on the system's own keys
  const acts = $derived(hooks.filter((h) => h.act && !/^Enter$|Backspace|⌫/.test(h.key)));
  // What a figure wants minded stands above it, where it was told with the step; what comes while one types comes below the keys, which never move.
  const said = $derived(typing || (desk.preview?.caution ?? ''));
  let helping = $state(false);
  $effect(() => (hands.touch ? stayAwake() : undefined));
  const INCH = 100;
  const tick = (i: number) => (i % 10 === 0 ? 2 : i % 5 === 0 ? 10 : 17);
</script>

<section class="tape noprint" aria-label={title} data-touch={hands.touch || undefined}>
  <svg height="26" aria-hidden="true">
    {#each { length: 200 }, i}<path d="M{i * (INCH / 10)} 26V{tick(i)}" />{/each}
  </svg>
  {#if desk.refused.length}<RefusedLine
      rows={desk.refused}
      retype={(row) => desk.retype(row)}
      again={(row) => desk.again(row)}
      discard={(row) => desk.discard(row)}
    />{/if}
  <TapeAsk
    {title}
    {how}
    {large}
    caution={keyed ? caution : said || caution}
    hooks={[
      ...(keyed ? acts.slice(3) : hooks),
      { key: '?', does: keyed ? TAPE.held : TAPE.all, act: () => (helping = true) },
    ]}
    {latest}
    bare={keyed}
    {lesson}
  />
  <TapeField {desk} {title} {label} {placeholder} {note} {closed} onhelp={() => (helping = true)} />
  {#if keyed && !closed}<TapeKeys
      {desk}
      kind={desk.typing as Exclude<typeof desk.typing, 'words'>}
      {finest}
      {acts}
      told={told ?? Boolean(large)}
      onenter={enter}
    />{/if}
  {#if keyed && said && said !== caution}<p class="caution below" role="status">{said}</p>{/if}
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
  [data-touch] :global(.keys) {
    grid-column: 2;
  }
  @media (max-width: 700px) {
    section {
      grid-template-columns: minmax(0, 1fr);
      gap: 6px;
    }
    [data-touch] :global(.keys) {
      grid-column: 1;
    }
  }
</style>
