<script lang="ts">
  // The tools with what each can tell, and the ways of working.
  import Card from '$parts/form/Card.svelte';
  import Choice from '$parts/form/Choice.svelte';
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import type { Doubt } from './draft';
  import FrameMarks from './FrameMarks.svelte';
  import PlanFigure from './PlanFigure.svelte';
  import ReadBys from './ReadBys.svelte';
  import { theSheet } from './sheet.svelte';
  import { PLAN } from './texts';

  const { draft } = $derived(theSheet());
  const PARTS = ['step', 'repeatability', 'zero'] as const;
  const ONLY: Partial<Record<Doubt, string>> = { box_parallel: 'box', mark_places: 'marks' };
  const doubts = $derived(
    (Object.keys(PLAN.doubts) as Doubt[]).filter((d) => (ONLY[d] ?? draft.ways.strings) === draft.ways.strings),
  );
</script>

<Card title={PLAN.tools} soft={PLAN.toolsSoft} label="">
  <Row cols={5} top>
    {#each draft.tools as tool (tool)}
      <Group title={tool.name}>
        <Row cols={3}>
          {#each PARTS as part (part)}
            <PlanFigure
              label={PLAN.tool[part]}
              name="{tool.name}, {PLAN.tool[part]}"
              bind:value={() => tool[part] ?? 0, (v) => (tool[part] = v ?? 0)}
              kind={tool.measures === 'steer' ? 'angle' : tool.measures}
              at="tools.{tool.id}.{part}"
            />
          {/each}
        </Row>
      </Group>
    {/each}
  </Row>
</Card>
<Card title={PLAN.ways} label="">
  <Row cols={3}>
    <Choice label={PLAN.strings} options={PLAN.stringWays} bind:value={draft.ways.strings} />
    <Choice label={PLAN.stringsOn} options={PLAN.stringRests} bind:value={draft.ways.strings_on} />
    <Text label={PLAN.reason} bind:value={draft.ways.strings_reason} max={400} />
  </Row>
  {#if draft.ways.strings === 'marks'}<FrameMarks />{/if}
  <Row cols={4}>
    <ReadBys />
  </Row>
  <Row cols={4}>
    <PlanFigure label={PLAN.plates} bind:value={draft.ways.plates} kind="length" at="ways.plates" />
    <PlanFigure label={PLAN.bar} bind:value={draft.ways.bar} kind="length" at="ways.bar" />
    {#each doubts as doubt, i (i)}
      <PlanFigure label={PLAN.doubts[doubt]} bind:value={draft.ways[doubt]} kind="length" at="ways.{doubt}" />
    {/each}
  </Row>
</Card>
