<script lang="ts">
  // Which points and members move the figure most, and what they move with it.
  import Panel from '$parts/frame/Panel.svelte';
  import Card from '$parts/form/Card.svelte';
  import type { Bench } from './bench.svelte';
  import { signed } from './numbers';
  import Spread from './Spread.svelte';
  import { TRAVEL } from './texts';

  type Props = { bench: Bench };
  let { bench }: Props = $props();
  const curve = $derived(bench.curve!);
  const title = $derived(TRAVEL.levers(curve.label, bench.inches));
  const most = $derived(Math.max(...bench.levers.map((l) => Math.abs(l.does)), 1e-12));
  const does = (by: number) => `${signed(by, curve.digits + 1, true)}${curve.unit === '°' ? '°' : ''}`;
</script>

<div>
  <Panel>
    <Card {title}>
      <Spread {bench} />
      {#if !bench.levers.length}<p class="soft">{TRAVEL.noLevers}</p>{/if}
      <ol class="plain">
        {#each bench.levers.slice(0, 6) as lever, i (i)}
          <li title="{TRAVEL.spoils} {lever.spoils.join(', ')}">
            <span class="bar" style:width="{(Math.abs(lever.does) / most) * 100}%"></span>
            <span>{lever.say}</span><b class="fig">{does(lever.does)}</b>
            <small>{lever.spoils.join(' · ')}</small>
          </li>
        {/each}
      </ol>
    </Card>
  </Panel>
</div>

<style>
  div {
    display: grid;
    min-width: 0;
    height: 0;
    min-height: max(100%, 200px);
  }
  li {
    position: relative;
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0 10px;
    border-top: 1px solid var(--edge);
    padding: 2px 4px;
    line-height: 1.2;
  }
  .bar {
    position: absolute;
    inset: 0 auto 0 0;
    background: var(--lit);
    z-index: 0;
  }
  li > :not(.bar) {
    position: relative;
  }
  small {
    grid-column: 1 / -1;
    color: var(--ink-soft);
    font-size: var(--type-label);
  }
  b {
    font-weight: 400;
  }
</style>
