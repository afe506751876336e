<script lang="ts">
  // How it is read: how the strings are set, in which way each kind of mark is read, and with which tools; what each tool can tell is asked for at the tape.
  import type { Quantity } from '$lib/api/client';
  import { QUANTITIES } from '$lib/kinds';
  import Card from '$parts/form/Card.svelte';
  import Choice from '$parts/form/Choice.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import ReadBys from '../ReadBys.svelte';
  import { DRAWN, PLAN } from '../texts';
  import { MEASURES, newTool, type Measures } from '../tools';
  import type { PlanDesk } from './plan-desk.svelte';

  type Props = { desk: PlanDesk };
  let { desk }: Props = $props();
  const { draft } = $derived(desk.sheet);
  let name = $state('');
  let measures = $state<Measures>('length');
  let refusal = $state('');
  let read = $state<Quantity | ''>('');
  const quantities = Object.fromEntries(Object.entries(QUANTITIES).map(([q, facts]) => [q, facts.words]));
  const fitting = $derived(
    Object.fromEntries(
      draft.tools.filter((t) => t.measures === (read && QUANTITIES[read].measures)).map((t) => [t.id, t.name]),
    ),
  );
  const usual = $derived(Object.entries(draft.tool_for));
  const toolName = (id: string) => draft.tools.find((t) => t.id === id)?.name ?? id;

  function put(): void {
    refusal = name.trim() ? '' : DRAWN.toolFirst;
    if (refusal) return;
    const tool = newTool(
      name.trim(),
      measures,
      draft.tools.map((t) => t.id),
    );
    draft.tools.push(tool);
    name = '';
    desk.open(`tools.${tool.id}.step`);
  }
  function takeOut(id: string): void {
    draft.tools = draft.tools.filter((t) => t.id !== id);
    draft.tool_for = Object.fromEntries(usual.filter(([, tool]) => tool !== id));
    desk.turnTo('ways');
  }
  function use(id: string): void {
    if (id) draft.tool_for[read] = id;
    else delete draft.tool_for[read];
  }
</script>

<Card title={PLAN.ways} label="">
  <Choice label={PLAN.strings} options={PLAN.stringWays} bind:value={draft.ways.strings} />
  <Choice label={PLAN.stringsOn} options={PLAN.stringRests} bind:value={draft.ways.strings_on} />
  <Row cols={2} top>
    <ReadBys />
  </Row>
  <h3>{PLAN.tools}</h3>
  {#each draft.tools as tool (tool)}
    <p>
      <button type="button" class="button" onclick={() => desk.open(`tools.${tool.id}.step`)}>{tool.name}</button>
      <button type="button" class="button" aria-label="{PLAN.remove} {tool.name}" onclick={() => takeOut(tool.id)}
        >{DRAWN.takeOut}</button
      >
    </p>
  {/each}
  <Row cols={2} top>
    <Text label={DRAWN.toolName} bind:value={name} problem={refusal} />
    <Choice label={DRAWN.toolMeasures} options={MEASURES} bind:value={measures} />
  </Row>
  <button type="button" class="button" onclick={put}>{DRAWN.putInBox}</button>
  <Row cols={2} top>
    <Choice label={DRAWN.usualFor} options={quantities} empty={DRAWN.choose} bind:value={read} />
    {#if read}<Choice
        label={DRAWN.usualTool}
        name={DRAWN.usualTool}
        options={fitting}
        empty={DRAWN.asUsual}
        bind:value={() => draft.tool_for[read] ?? '', use}
      />{/if}
  </Row>
  {#each usual as [quantity, tool] (quantity)}<p class="soft">
      {DRAWN.readWith(quantities[quantity] ?? quantity, toolName(tool))}
    </p>{/each}
</Card>

<style>
  p {
    display: flex;
    justify-content: space-between;
    gap: 8px;
  }
</style>
