<script lang="ts">
  // The thread at one end of an adjuster, and how much of it is engaged and exposed.
  import Choice from '$parts/form/Choice.svelte';
  import Row from '$parts/form/Row.svelte';
  import { nameThread } from './adjuster-moves';
  import type { EndDraft } from './draft';
  import PlanFigure from './PlanFigure.svelte';
  import { theSheet } from './sheet.svelte';
  import { PLAN } from './texts';

  type Props = { end: EndDraft; path: string };
  let { end, path }: Props = $props();
  const sheet = theSheet();
  const KINDS = { diameter: 'thread', pitch_mm_per_turn: 'pitch', engaged: 'length', exposed: 'length' } as const;
  const parts = Object.keys(KINDS) as (keyof typeof KINDS)[];
  const HANDS = { right: PLAN.right, left: PLAN.left } as const;
</script>

<Row cols={5} top>
  {#each parts as part (part)}
    <PlanFigure
      label={PLAN.end[part]}
      name="{PLAN.end[part]}, {HANDS[end.hand]} end"
      bind:value={end[part]}
      kind={KINDS[part]}
      at="{path}.{part}"
      onthread={(t) => nameThread(end, t)}
    />
  {/each}
  <Choice label={PLAN.hand} options={HANDS} bind:value={end.hand} problem={sheet.at(`${path}.hand`)} />
</Row>
