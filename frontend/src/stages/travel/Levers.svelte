<script lang="ts">
  // Which points and members move the figure most, and what they move with it. One tried is put into What if.
  import { untrack } from 'svelte';
  import { api } from '$lib/api/client';
  import type { Bench } from './bench.svelte';
  import { signed } from './numbers';
  import { TRAVEL } from './texts';

  type Props = { bench: Bench };
  let { bench }: Props = $props();

  let doubt = $state('');
  let spread = $state.raw<Awaited<ReturnType<typeof api.spread>>>([]);
  let refusal = $state('');
  async function scatter(): Promise<void> {
    const [typed, end] = [doubt, bench.end];
    [spread, refusal] = [[], ''];
    if (!typed.trim()) return;
    try {
      const found = await api.spread(bench.slug, end, typed);
      if (typed === doubt && end === bench.end) spread = found;
    } catch (error) {
      if (typed === doubt) refusal = (error as Error).message;
    }
  }
  $effect(() => {
    void bench.end;
    untrack(() => void scatter());
  });

  const curve = $derived(bench.curve!);
  const most = $derived(Math.max(...bench.levers.map((l) => Math.abs(l.does)), 1e-12));
</script>

<section class="card" aria-label={TRAVEL.levers(curve.label, bench.inches)}>
  <label class="doubt"
    >{TRAVEL.doubt}<input
      class="fig"
      bind:value={doubt}
      oninput={() => void scatter()}
      maxlength="40"
      autocomplete="off"
      placeholder={bench.inches ? '1/32' : '0.5'}
      aria-invalid={refusal ? 'true' : undefined}
    />
    <span role="status"
      >{#each spread as row, i (row.label)}{i ? ' · ' : ''}{row.label.toLowerCase()} ± {signed(
          row.drawn,
          row.digits,
        )}{row.unit === '°' ? '' : ' '}{row.unit}{:else}{refusal || TRAVEL.doubtSoft}{/each}</span
    ></label
  >
  <h2>{TRAVEL.levers(curve.label, bench.inches)}</h2>
  {#if !bench.levers.length}<p class="soft">{TRAVEL.noLevers}</p>{/if}
  <ol>
    {#each bench.levers.slice(0, 6) as lever (lever.say)}
      <li title="{TRAVEL.spoils} {lever.spoils.join(', ')}">
        <span class="bar" style:width="{(Math.abs(lever.does) / most) * 100}%"></span>
        <span>{lever.say}</span><b class="fig"
          >{signed(lever.does, curve.digits + 1, true)}{curve.unit === '°' ? '°' : ''}</b
        >
        <small>{lever.spoils.join(' · ')}</small>
      </li>
    {/each}
  </ol>
</section>

<style>
  section {
    min-height: 0;
    max-height: 236px;
    overflow: auto;
    padding-block: 10px;
  }
  .doubt {
    display: grid;
    grid-template-columns: auto 84px 1fr;
    gap: 10px;
    align-items: center;
    font-size: 0.875rem;
    border-bottom: 1px solid var(--edge);
    padding-bottom: 6px;
    margin-bottom: 6px;
  }
  .doubt input {
    min-height: 38px;
    border: 1px solid var(--steel-dark);
    border-radius: var(--round);
    background: #fff;
    padding: 2px 8px;
    font-size: 1rem;
    min-width: 0;
  }
  .doubt span {
    color: var(--ink-soft);
    line-height: 1.2;
  }
  h2 {
    font-size: 1rem;
  }
  ol {
    list-style: none;
    margin: 4px 0 0;
    padding: 0;
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
    background: #f6e6b4;
    z-index: 0;
  }
  li > :not(.bar) {
    position: relative;
  }
  small {
    grid-column: 1 / -1;
    color: var(--ink-soft);
    font-size: 0.8125rem;
  }
  b {
    font-weight: 400;
  }
</style>
