<script lang="ts">
  // Whether the links of the anti-roll bars are on.
  import type { CarView, What } from '$lib/api/client';
  import Group from '$parts/form/Group.svelte';
  import { STANCE, STATE } from './texts';

  type Props = { view: CarView; record: (what: What, title: string) => Promise<void> };
  let { view, record }: Props = $props();
  const { front_linkage, rear_linkage, footing } = $derived(view.plan);
  const any = $derived(
    Boolean(front_linkage?.bar || rear_linkage?.bar || footing.front_end?.bar || footing.rear_end?.bar),
  );
  const on = $derived(view.condition.bar_connected);
  const change = () =>
    void record(
      { kind: 'happened', version: 1, what: on ? 'bar_off' : 'bar_on', corner: null, words: '', points: [] },
      STATE.bars,
    );
</script>

{#if any}
  <Group title={STATE.bars}>
    <p>
      {STANCE.bars[on ? 'on' : 'off']}
      <button type="button" class="button" onclick={change}>{on ? STANCE.takeOff : STANCE.putOn}</button>
    </p>
  </Group>
{/if}

<style>
  p {
    display: flex;
    gap: 10px;
    align-items: center;
    justify-content: space-between;
  }
</style>
