<script lang="ts">
  // The pads under the wheels: what was read, how each is shimmed, or what arithmetic takes off.
  import type { StanceView, What } from '$lib/api/client';
  import { CORNER_WORDS } from '$lib/marks';
  import { router } from '$lib/router.svelte';
  import Group from '$parts/form/Group.svelte';
  import Table from '$parts/form/Table.svelte';
  import { STATE } from './texts';

  type Props = { slug: string; stance: StanceView; record: (what: What, title: string) => Promise<void> };
  let { slug, stance, record }: Props = $props();
  const levelled = () =>
    void record({ kind: 'happened', version: 1, what: 'level', corner: null, words: '', points: [] }, STATE.shimmed);
</script>

<Group title={STATE.pads}>
  {#each stance.pads_say as line, i (i)}<p>{line}</p>{/each}
  {#if stance.pads_way !== 'unproved'}
    <Table head={Object.values(STATE.pad)}>
      {#each stance.pads as pad (pad.corner)}
        <tr>
          <th scope="row">{CORNER_WORDS[pad.corner]}</th>
          <td class="fig">{pad.say}</td>
          <td class="fig">{pad.pack || pad.up || '—'}</td>
          <td class="fig">{pad.adds || '—'}</td>
        </tr>
      {/each}
    </Table>
  {/if}
  <p class="ways">
    <button type="button" class="button" onclick={() => router.go(`/cars/${slug}/stance/floor/LF/pad`)}
      >{STATE.readPads}</button
    >
    <button type="button" class="button" onclick={() => router.go(`/cars/${slug}/stance/floor/RF/pad_step`)}
      >{STATE.stepPads}</button
    >
    {#if stance.pads_way === 'arithmetic'}
      <button type="button" class="button" onclick={levelled}>{STATE.shimmed}</button>
    {/if}
  </p>
</Group>

<style>
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
</style>
