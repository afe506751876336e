<script lang="ts">
  // Every mark as it was found before something of the job was turned, beside how it stands now; and the beginning of the next job.
  import { api, type Found, type What } from '$lib/api/client';
  import { until } from '$lib/api/until';
  import type { Car } from '$lib/car.svelte';
  import { formsAt } from '$lib/kinds';
  import KindForm from '$parts/KindForm.svelte';
  import { LOG } from './texts';

  type Props = { car: Car };
  let { car }: Props = $props();
  let rows = $state.raw<Found[]>([]);
  $effect(() => {
    void car.view?.number;
    return until(
      () => api.found(car.slug),
      (found) => (rows = found),
    );
  });
  const record = async (what: What) => (await car.ask(what, LOG.job)).fate !== 'refused';
</script>

<details class="card">
  <summary>{LOG.found}</summary>
  <table>
    <thead><tr><th></th><th scope="col">{LOG.foundThen}</th><th scope="col">{LOG.foundNow}</th></tr></thead>
    <tbody>
      {#each rows as row (row.mark)}
        <tr title={row.aim}>
          <th scope="row">{row.name}</th>
          <td class="fig" data-state={row.found_state}>{row.found || LOG.notRead}</td>
          <td class="fig" data-state={row.now_state}>{row.now}</td>
        </tr>
      {/each}
    </tbody>
  </table>
  {#each formsAt('log') as kind (kind)}<KindForm {kind} points={[]} button={LOG.beginJob} {record} />{/each}
</details>

<style>
  summary {
    font-weight: 700;
    min-height: var(--touch);
    display: flex;
    align-items: center;
    cursor: pointer;
  }
  summary::before {
    content: '▸';
    margin-right: 8px;
  }
  [open] summary::before {
    content: '▾';
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: var(--type-small);
  }
  th {
    text-align: left;
    font-weight: 400;
    color: var(--ink-soft);
  }
  td {
    padding: 2px 0 2px 10px;
  }
  tbody tr {
    border-top: 1px solid var(--edge);
  }
  [data-state='out'] {
    color: var(--rust);
  }
  [data-state='holds'] {
    font-weight: 700;
  }
</style>
