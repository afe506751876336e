<script lang="ts">
  // What the plan leaves open, and the step that will want it.
  import type { Wanting } from '$lib/api/client';
  import Card from '$parts/form/Card.svelte';
  import { HERE, PLAN } from './texts';

  type Props = { rows: Wanting[]; onopen?: (path: string) => void };
  let { rows, onopen }: Props = $props();
</script>

<Card title={PLAN.wanting} beside={PLAN.wantingSoft}>
  <table>
    <tbody>
      {#each rows as row, i (i)}
        <tr>
          <th scope="row">{row.stage}</th>
          <td>{row.what}</td>
          <td class="soft">{row.step}</td>
          {#if onopen}<td
              ><button
                type="button"
                class="button"
                aria-label="{HERE.give}: {row.what}"
                onclick={() => onopen(row.path)}>{HERE.giveShort}</button
              ></td
            >{/if}
        </tr>
      {/each}
    </tbody>
  </table>
</Card>

<style>
  table {
    border-collapse: collapse;
    width: 100%;
  }
  th,
  td {
    text-align: left;
    border-top: 1px solid var(--edge);
    padding: 4px 10px 4px 0;
  }
</style>
