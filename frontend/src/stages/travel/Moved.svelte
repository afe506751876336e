<script lang="ts">
  // What is moved on paper, which way, by how much.
  import type { Change, Plan } from '$lib/api/client';
  import { spoken } from '$lib/marks';
  import Choice from '$parts/form/Choice.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import type { Bench } from './bench.svelte';
  import { TRAVEL } from './texts';

  type Props = { bench: Bench; plan: Plan };
  let { bench, plan }: Props = $props();

  const prefixes = $derived(bench.end === 'front' ? ['LF', 'RF', 'front'] : ['LR', 'RR', 'rear']);
  const points = $derived(Object.keys(plan.points).filter((n) => prefixes.includes(n.split('.')[0]!)));
  const members = $derived([...new Set(bench.levers.filter((l) => l.axis === null).map((l) => l.name))]);
  const options = $derived({
    ...Object.fromEntries(points.map((p) => [p, spoken(p)])),
    ...Object.fromEntries(members.map((m) => [`=${m}`, `${m}, ${TRAVEL.longer}`])),
  });
  let picked = $state('');
  let axis = $state<'0' | '1' | '2'>('2');
  let text = $state('');
  const what = $derived(picked in options ? picked : (points[0] ?? ''));
  const member = $derived(what.startsWith('=') ? what.slice(1) : '');
  const moved = $derived({
    name: member ? `${(points[0] ?? '').split('.')[0]}.${member}` : what,
    axis: member ? null : (Number(axis) as 0 | 1 | 2),
  });

  function type(): void {
    const rest = bench.changes.filter((c) => c.name !== moved.name || c.axis !== moved.axis);
    const change: Change = { ...moved, typed: text };
    void bench.move(text.trim() ? [...rest, change] : rest);
  }
  const clear = () => ((text = ''), void bench.move([]));
</script>

<Row cols={member ? 2 : 3} end>
  <Choice label={TRAVEL.what} {options} bind:value={() => what, (w) => (picked = w)} />
  {#if !member}<Choice label={TRAVEL.way} options={{ ...TRAVEL.ways }} bind:value={axis} />{/if}
  <Text
    label={TRAVEL.by}
    bind:value={text}
    figure
    max={40}
    hint={bench.inches ? '1/16' : '2'}
    amiss={Boolean(bench.refusal)}
    oninput={type}
  />
  <button type="button" class="button" onclick={clear} disabled={!bench.changes.length}>{TRAVEL.clear}</button>
</Row>
