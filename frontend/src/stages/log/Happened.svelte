<script lang="ts">
  // What else happened to the car: settled, knocked, welded, another tyre, something put in.
  import type { Corner } from '$lib/api/client';
  import type { Car } from '$lib/car.svelte';
  import { CORNER_WORDS } from '$lib/marks';
  import Choice from '$parts/form/Choice.svelte';
  import Figure from '$parts/form/Figure.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import HappenedWhat from './HappenedWhat.svelte';
  import { LOG } from './texts';

  type Props = { car: Car };
  let { car }: Props = $props();
  const units = $derived(car.view!.plan.units);
  let what = $state<keyof typeof LOG.what>('settled');
  let corner = $state<Corner | ''>('');
  let words = $state('');
  let by = $state<number | null>(null);
  let station = $state<number | null>(null);
  let offset = $state<number | null>(null);
  const somewhere = $derived(['tyre', 'weld', 'knock'].includes(what));
  const CAUTIONS: Partial<Record<string, string>> = { weld: LOG.weld, bar_off: LOG.lift };

  // What is written leaves its field at once; where it is not taken it stands in the list above, with its words.
  function happened(event: SubmitEvent): void {
    event.preventDefault();
    const at = station === null || offset === null ? null : ([station, offset] as [number, number]);
    const told = by !== null && ((what === 'tyre' && corner) || (what === 'load' && at));
    const figures = { by: told ? by : null, place: told && what === 'load' ? at : null };
    car.record(
      { kind: 'happened', version: 1, what, corner: corner || null, words, points: [], ...figures },
      words || LOG.what[what],
    );
    [words, by, station, offset] = ['', null, null, null];
  }
</script>

<form class="card" onsubmit={happened}>
  <HappenedWhat bind:what />
  {#if somewhere}<Choice label={LOG.where} options={CORNER_WORDS} empty={LOG.all} bind:value={corner as Corner} />{/if}
  {#if what === 'tyre' && corner}<Figure label={LOG.larger} bind:value={by} kind="length" {units} />{/if}
  {#if what === 'load'}
    <Row cols={3}>
      <Figure label={LOG.mass} bind:value={by} kind="mass" {units} />
      <Figure label={LOG.station} bind:value={station} kind="length" {units} />
      <Figure label={LOG.offset} bind:value={offset} kind="length" {units} />
    </Row>
  {/if}
  {#if what === 'tyre' || what === 'load'}<p class="soft">{LOG.figure}</p>{/if}
  <Text label={LOG.words} bind:value={words} max={200} />
  {#if CAUTIONS[what]}<p class="caution">{CAUTIONS[what]}</p>{/if}
  <button class="button" data-main>{LOG.record}</button>
</form>

<style>
  form {
    display: grid;
    gap: var(--gap-2);
  }
</style>
