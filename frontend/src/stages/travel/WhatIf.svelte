<script lang="ts">
  // Something moved on paper: a point one way, or a member longer; every figure follows while it is typed.
  import type { Change, Plan } from '$lib/api/client';
  import Card from '$parts/form/Card.svelte';
  import Check from '$parts/form/Check.svelte';
  import type { Bench } from './bench.svelte';
  import Limits from './Limits.svelte';
  import Moved from './Moved.svelte';
  import { TRAVEL } from './texts';

  type Props = { bench: Bench; plan: Plan };
  let { bench, plan }: Props = $props();
  const say = (c: Change) =>
    `${c.name.replaceAll('.', ' ')} ${c.axis === null || c.axis === undefined ? TRAVEL.longer : TRAVEL.ways[c.axis]} ${c.typed}`;
</script>

<div>
  <Card title={TRAVEL.whatIf} beside={TRAVEL.whatIfSoft}>
    <Moved {bench} {plan} />
    <Check label={TRAVEL.anew} bind:checked={bench.anew} onpick={() => void bench.move(bench.changes)} />
    {#if bench.refusal}<p class="no" role="alert">{bench.refusal}</p>{/if}
    {#if bench.changes.length}<p>{bench.changes.map(say).join(' · ')}</p>{/if}
    <Limits {bench} />
    {#if bench.moved?.warnings.length}<p class="no">{bench.moved.warnings.join(' ')}</p>{/if}
  </Card>
</div>

<style>
  div {
    display: grid;
    border-left: 10px solid var(--paint);
    min-width: 0;
  }
</style>
