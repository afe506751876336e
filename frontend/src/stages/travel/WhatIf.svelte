<script lang="ts">
  // Something moved on paper: a point one way, or a member longer; every figure follows while it is typed.
  import type { Change, Plan } from '$lib/api/client';
  import type { Bench } from './bench.svelte';
  import { signed } from './numbers';
  import { TRAVEL } from './texts';

  type Props = { bench: Bench; plan: Plan };
  let { bench, plan }: Props = $props();

  const prefixes = $derived(bench.end === 'front' ? ['LF', 'RF', 'front'] : ['LR', 'RR', 'rear']);
  const points = $derived(Object.keys(plan.points).filter((n) => prefixes.includes(n.split('.')[0]!)));
  const members = $derived([...new Set(bench.levers.filter((l) => l.axis === null).map((l) => l.name))]);
  let what = $state('');
  let axis = $state<'0' | '1' | '2'>('2');
  let text = $state('');
  const limits = $derived((bench.moved ?? bench.planned)?.limits ?? []);
  const chosen = $derived(points.includes(what) ? what : (points[0] ?? ''));
  const corner = $derived(chosen.split('.')[0] ?? '');
  const name = $derived(what.startsWith('=') ? `${corner}.${what.slice(1)}` : chosen);

  function type(): void {
    const rest = bench.changes.filter((c) => c.name !== name || c.axis !== (what.startsWith('=') ? null : +axis));
    if (!text.trim()) return void bench.move(rest);
    void bench.move([...rest, { name, axis: what.startsWith('=') ? null : (+axis as 0 | 1 | 2), typed: text }]);
  }
  function clear(): void {
    text = '';
    void bench.move([]);
  }
  const say = (c: Change) =>
    `${c.name.replaceAll('.', ' ')} ${c.axis === null || c.axis === undefined ? TRAVEL.longer : TRAVEL.ways[c.axis]} ${c.typed}`;
</script>

<section class="card" aria-label={TRAVEL.whatIf}>
  <h2>{TRAVEL.whatIf} <small>{TRAVEL.whatIfSoft}</small></h2>
  <div class="row">
    <label
      >{TRAVEL.what}<select bind:value={what}
        >{#each points as point (point)}<option value={point}>{point.replaceAll('.', ' ')}</option
          >{/each}{#each members as member (member)}<option value="={member}">{member}, {TRAVEL.longer}</option
          >{/each}</select
      ></label
    >
    {#if !what.startsWith('=')}<label
        >{TRAVEL.way}<select bind:value={axis}
          >{#each TRAVEL.ways as way, i (way)}<option value={String(i)}>{way}</option>{/each}</select
        ></label
      >{/if}
    <label
      >{TRAVEL.by}<input
        class="fig"
        bind:value={text}
        oninput={type}
        autocomplete="off"
        maxlength="40"
        placeholder={bench.inches ? '1/16' : '2'}
        aria-invalid={bench.refusal ? 'true' : undefined}
      /></label
    >
    <button type="button" class="button" onclick={clear} disabled={!bench.changes.length}>{TRAVEL.clear}</button>
  </div>
  <label class="check"
    ><input
      type="checkbox"
      bind:checked={bench.anew}
      onchange={() => void bench.move(bench.changes)}
    />{TRAVEL.anew}</label
  >
  {#if bench.refusal}<p class="no" role="alert">{bench.refusal}</p>{/if}
  {#if bench.changes.length}<p>{bench.changes.map(say).join(' · ')}</p>{/if}
  {#if limits.length}
    <h3>{TRAVEL.limits}</h3>
    <ol>
      {#each limits.slice(0, 3) as limit (limit.what)}
        {@const at = `${signed(limit.at, 0, true)} ${bench.planned?.unit ?? ''}`}
        {@const size = `${signed(Math.abs(limit.left), 1)} ${limit.unit}`}
        <li data-past={limit.left < 0 || undefined}>
          <span>{limit.what}</span> <b>{limit.left < 0 ? TRAVEL.past(size, at) : TRAVEL.leftOf(size, at)}</b>
        </li>
      {/each}
    </ol>
  {/if}
  {#if bench.moved?.warnings.length}<p class="no">{bench.moved.warnings.join(' ')}</p>{/if}
</section>

<style>
  section {
    border-left: 10px solid var(--paint);
    padding-block: 10px;
    display: grid;
    gap: 6px;
    align-content: start;
  }
  h2 {
    font-size: 1rem;
  }
  h2 small {
    font-weight: 400;
    color: var(--ink-soft);
    font-size: 0.8125rem;
  }
  .row {
    display: grid;
    grid-template-columns: minmax(0, 2fr) minmax(0, 1.2fr) minmax(0, 1fr) auto;
    gap: 10px;
    align-items: end;
  }
  .row label {
    display: grid;
    color: var(--ink-soft);
    font-size: 0.8125rem;
  }
  select,
  .row input {
    min-height: var(--touch);
    border: 1px solid var(--steel-dark);
    border-radius: var(--round);
    background: #fff;
    padding: 2px 8px;
    font-size: 1rem;
    color: var(--ink);
    min-width: 0;
  }
  h3 {
    font-size: 0.875rem;
    border-top: 1px solid var(--edge);
    padding-top: 4px;
  }
  ol {
    list-style: none;
    margin: 0;
    padding: 0;
    font-size: 0.875rem;
  }
  li {
    display: flex;
    justify-content: space-between;
    gap: 10px;
  }
  li b {
    font-weight: 400;
  }
  [data-past] {
    color: var(--rust);
  }
  [data-past] b {
    font-weight: 700;
  }
  .check {
    display: flex;
    gap: 8px;
    align-items: center;
    min-height: 28px;
    font-size: 0.875rem;
  }
  .check input {
    width: 20px;
    height: 20px;
    accent-color: var(--layout);
  }
  .no {
    color: var(--rust);
    font-weight: 700;
    font-size: 0.875rem;
  }
</style>
