<script lang="ts">
  // Every pickup point against the plan: how far off, what that does to the finished car, and what to do about it.
  import type { JigView, Pickup } from '$lib/api/client';
  import Card from '$parts/form/Card.svelte';
  import Panel from '$parts/frame/Panel.svelte';
  import PickupOne from './PickupOne.svelte';
  import PickupTable from './PickupTable.svelte';
  import type { Survey } from './survey.svelte';
  import { JIG } from './texts';

  type Props = { survey: Survey; view: JigView };
  let { survey, view }: Props = $props();

  const RANK = { out: 0, 'too close to call': 1, holds: 3 } as const;
  const rank = (p: Pickup) => (p.verdict ? RANK[p.verdict] : RANK.holds - 1);
  const rows = $derived([...view.pickups].sort((a, b) => rank(a) - rank(b)));
  const chosen = $derived(
    view.pickups.find((p) => p.point === survey.lit && p.off) ??
      rows.find((p) => p.verdict === 'out') ??
      rows.find((p) => p.off),
  );
  const together = $derived(view.together.find((t) => t.of === chosen?.point.split('.')[0]));
</script>

<Panel>
  <Card title={JIG.tabs.pickups} beside={JIG.all(view.accepted, view.counted)}>
    {#if chosen}<PickupOne {chosen} together={together?.effects} />{/if}
    <PickupTable {rows} lit={chosen?.point} onpick={(point) => (survey.lit = point)} />
    <p class="soft">{JIG.strength}</p>
  </Card>
</Panel>
