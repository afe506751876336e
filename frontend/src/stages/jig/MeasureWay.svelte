<script lang="ts">
  // How it is read: kind, tool, pins; and over which points.
  import Choice from '$parts/form/Choice.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import type { Kind, Survey } from './survey.svelte';
  import { JIG } from './texts';

  type Props = { survey: Survey; names: string[] };
  let { survey, names }: Props = $props();
  const tools = $derived(Object.fromEntries(survey.tools.map((t) => [t.id, t.name])));
  const kind = (to: Kind) => survey.ask(to, survey.points.slice(0, JIG.counts[to]));
  function point(i: number, name: string): void {
    const next = [...survey.points];
    next[i] = name;
    survey.ask(survey.kind, next.slice(0, survey.needed));
  }
</script>

<Row>
  <Choice label={JIG.kind} options={JIG.kinds} bind:value={() => survey.kind, kind} />
  <Choice label={JIG.tool} options={tools} bind:value={() => survey.toolNow?.id ?? '', (t) => (survey.tool = t)} />
  {#if survey.kind === 'distance'}
    <Choice label={JIG.pinHow} options={JIG.pins} bind:value={survey.pins} />
    {#if survey.pins}
      {#each [0, 1] as const as i (i)}
        <Text label={JIG.diameters[i]} bind:value={survey.diameters[i]} figure max={20} />
      {/each}
    {/if}
    <Text label={JIG.burnt} bind:value={survey.burnt} figure max={20} hint="0" />
  {:else if survey.kind === 'compare'}
    <Choice label={JIG.how} options={JIG.says} bind:value={survey.says} />
  {/if}
</Row>
<Row>
  {#each { length: survey.needed }, i}
    <Choice
      label={JIG.point(i)}
      options={names}
      empty=""
      bind:value={() => survey.points[i] ?? '', (name) => point(i, name)}
    />
  {/each}
</Row>
