<script lang="ts">
  // The tape: says what to read and with what, takes the figure, shows what it would mean. One component for every stage.
  import type { Desk, Hook } from './desk.svelte';
  import RefusedLine from './RefusedLine.svelte';
  import type { Latest } from './round.svelte';
  import TapeAsk from './TapeAsk.svelte';
  import TapeField from './TapeField.svelte';

  type Props = {
    desk: Desk;
    title: string;
    how: string;
    large?: string; // what is to be done, read at arm's length
    label: string;
    caution?: string;
    placeholder?: string;
    note?: string;
    hooks: Hook[];
    latest?: Latest[];
    closed?: boolean;
  };
  let {
    desk,
    title,
    how,
    large = '',
    label,
    caution = '',
    placeholder = '',
    note = '',
    hooks,
    latest = [],
    closed,
  }: Props = $props();
  const INCH = 100;
  const tick = (i: number) => (i % 10 === 0 ? 2 : i % 5 === 0 ? 10 : 17);
</script>

<section class="tape noprint" aria-label={title}>
  <svg height="26" aria-hidden="true">
    {#each { length: 200 }, i}<path d="M{i * (INCH / 10)} 26V{tick(i)}" />{/each}
  </svg>
  {#if desk.refused.length}<RefusedLine
      rows={desk.refused}
      retype={(row) => desk.retype(row)}
      again={(row) => desk.again(row)}
      discard={(row) => desk.discard(row)}
    />{/if}
  <TapeAsk {title} {how} {large} {caution} {hooks} {latest} />
  <TapeField {desk} {title} {label} {placeholder} {note} {closed} />
</section>

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
  @media (max-width: 1100px) {
    section {
      grid-template-columns: minmax(0, 1fr) 320px;
    }
  }
</style>
