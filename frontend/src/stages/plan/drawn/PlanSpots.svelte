<script lang="ts">
  // Named places of the chassis, from above: a dot each, and of the one in hand how far it is from the front axle line and from the middle.
  import type { PlanAsk } from './ask';
  import type { PlanDesk } from './plan-desk.svelte';

  type Props = { desk: PlanDesk; px: number; guess: (path: string) => { x: number; y: number } };
  let { desk, px, guess }: Props = $props();

  const groups = $derived.by(() => {
    const by: Record<string, PlanAsk[]> = {};
    for (const a of desk.asks) if (a.spot) (by[a.group] ??= []).push(a);
    return Object.entries(by);
  });
  /** Right on the drawing is right of the car, down is aft. */
  const at = ([group, [ask]]: [string, PlanAsk[]]) => {
    const other = guess(group);
    const { x, y } = ask!.spot!;
    return { u: y === null ? other.x : -y, v: x === null ? other.y : -x, known: x !== null && y !== null };
  };
</script>

{#each groups as entry (entry[0])}
  {@const [group, asks] = entry}
  {@const p = at(entry)}
  {@const now = desk.ask.group === group}
  <circle class={now ? 'now' : 'line'} stroke-dasharray={p.known ? undefined : '4 4'} cx={p.u} cy={p.v} r={6 * px} />
  {#if now}
    <text class="now-word" font-size={15 * px} x={p.u} y={p.v - 14 * px} text-anchor="middle"
      >{asks[0]!.spot!.name}</text
    >
    <path class="now thin-now" stroke-dasharray={p.known ? undefined : '7 6'} d="M{p.u} 0V{p.v}M0 {p.v}H{p.u}" />
  {/if}
{/each}
{#each groups as entry (entry[0])}
  {@const [group, asks] = entry}
  {@const p = at(entry)}
  <!-- svelte-ignore a11y_click_events_have_key_events (the tape's own keys go from place to place) -->
  <circle
    class="touch"
    role="button"
    tabindex="-1"
    aria-label={asks[0]!.spot!.name}
    cx={p.u}
    cy={p.v}
    r={(desk.ask.group === group ? 12 : 22) * px}
    onclick={() => desk.open(asks[0]!.path)}><title>{asks[0]!.spot!.name}</title></circle
  >
{/each}

<style>
  .thin-now {
    stroke-width: 1.2;
  }
  .touch {
    fill: transparent;
    stroke: none;
    cursor: pointer;
    outline: none;
  }
</style>
