<script lang="ts">
  // The tyres at each corner: its own or a stand-in, and its loaded radius.
  import type { StanceView, What } from '$lib/api/client';
  import { CORNER_WORDS, CORNERS } from '$lib/marks';
  import { router } from '$lib/router.svelte';
  import Group from '$parts/form/Group.svelte';
  import { STATE } from './texts';

  type Props = { slug: string; stance: StanceView; record: (what: What, title: string) => Promise<void> };
  let { slug, stance, record }: Props = $props();
</script>

<Group title={STATE.tyres} soft={STATE.tyreSoft}>
  {#each CORNERS as corner (corner)}
    {@const name = CORNER_WORDS[corner]}
    {@const standIn = stance.stand_ins.includes(corner)}
    <p>
      <span>{name}: {standIn ? STATE.stand_in : STATE.own} {STATE.fitted}</span>
      <button
        type="button"
        class="button"
        aria-label="{name}: {STATE.radius}"
        onclick={() => router.go(`/cars/${slug}/stance/floor/${corner}/radius`)}>{STATE.radius}</button
      >
      <button
        type="button"
        class="button"
        onclick={() => void record({ kind: 'fitted', version: 1, stand_in: !standIn, corner, words: '' }, STATE.tyres)}
        >{standIn ? STATE.ownAgain : STATE.fitStandIn}</button
      >
    </p>
  {/each}
</Group>

<style>
  p {
    display: flex;
    gap: 10px;
    align-items: center;
    flex-wrap: wrap;
  }
  span {
    flex: 1 1 160px;
  }
</style>
