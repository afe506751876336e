<script lang="ts">
  // The pickup points in rows: off which way and how far, how sure, against its twin, and the verdict.
  import type { Pickup } from '$lib/api/client';
  import Table from '$parts/form/Table.svelte';
  import { JIG } from './texts';

  type Props = { rows: Pickup[]; lit: string | undefined; onpick: (point: string) => void };
  let { rows, lit, onpick }: Props = $props();
  const head = ['', ...JIG.ways, JIG.u, JIG.twinShort, ''];
  const why = (p: Pickup) => `${p.stale ? `${JIG.since(p.stale)}. ` : ''}${p.options[0]?.say ?? ''}`;
</script>

<Table {head} small stacked>
  {#each rows as p (p.point)}
    <tr data-lit={p.point === lit || undefined}>
      <th scope="row"><button type="button" onclick={() => onpick(p.point)}>{p.say}</button></th>
      {#if p.off}
        {#each p.say_off as off, i (i)}<td class="fig" data-name={JIG.ways[i]}>{off}</td>{/each}
        <td class="fig soft" data-name={JIG.u}>{p.say_u_most}</td>
        <td class="fig soft" data-name={JIG.twinShort} title="{JIG.twin}: {p.twin.join(', ')}"
          >{p.twin_most === null ? '' : p.twin[p.twin_most]}</td
        >
        <td data-verdict>{p.verdict}</td>
      {:else}
        <td colspan={p.verdict ? 5 : 6} class="soft">{why(p)}</td>
        {#if p.verdict}<td data-verdict>{p.verdict}</td>{/if}
      {/if}
    </tr>
  {/each}
</Table>

<style>
  button {
    border: 0;
    background: none;
    min-height: 32px;
    padding: 0;
    cursor: pointer;
    text-align: left;
  }
  button:hover {
    text-decoration: underline;
  }
  @media (pointer: coarse) {
    button {
      min-height: var(--touch);
    }
  }
  /* In blocks the verdict stands beside the name. */
  @media (max-width: 1100px) {
    tr {
      position: relative;
    }
    td[data-verdict] {
      position: absolute;
      right: 0;
      top: 16px;
      font-weight: 700;
    }
    td[colspan] {
      grid-column: 1 / -1;
    }
  }
</style>
