<script lang="ts">
  // The rate at the wheel over travel, true and by the rough formula, with a reading line.
  import type { Corner, StanceView } from '$lib/api/client';
  import { CORNER_WORDS } from '$lib/marks';
  import Plot from '$parts/Plot.svelte';
  import { SPRINGS } from './texts';

  type Props = { spring: StanceView['corners'][number]['springs'][number]; corner: Corner };
  let { spring, corner }: Props = $props();
  let row = $state(32);
  const last = $derived(spring.travel.length - 1);
  const rough = $derived(
    spring.rough === null ? [] : [{ name: SPRINGS.rough, values: spring.travel.map(() => spring.rough), dashed: true }],
  );
  const travel = $derived(spring.travel[row] ?? 0);
  const digits = $derived(spring.travel_unit === 'mm' ? 1 : 3);
</script>

<div>
  <Plot
    label="{CORNER_WORDS[corner]}, {spring.name}: {SPRINGS.plot}, {spring.unit}"
    drive={spring.travel}
    driveName={SPRINGS.over}
    unit={spring.travel_unit}
    lines={[{ name: SPRINGS.true, values: spring.rate }, ...rough]}
    {row}
    onrow={(r) => (row = r)}
    onstep={(by) => (row = Math.min(Math.max(row + by, 0), last))}
  />
</div>
<p>
  {travel >= 0 ? 'bump' : 'droop'}
  <b class="fig">{Math.abs(travel).toFixed(digits)} {spring.travel_unit}</b>:
  <b class="fig">{spring.rate[row]?.toFixed(1) ?? '—'} {spring.unit}</b>
</p>

<style>
  div {
    display: grid;
    height: 260px;
  }
</style>
