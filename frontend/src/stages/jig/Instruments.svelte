<script lang="ts">
  // Tools that read an angle: how each did when it was turned end for end last; and a level read both ways round.
  import type { JigView } from '$lib/api/client';
  import { takeOut } from '$lib/takeout';
  import Choice from '$parts/form/Choice.svelte';
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import type { JigForms } from './jig-forms.svelte';
  import { JIG } from './texts';

  type Props = { forms: JigForms; view: JigView };
  let { forms, view }: Props = $props();
  const WAYS = { along: JIG.alongWay, across: JIG.acrossWay } as const;
  const tools = $derived(
    Object.fromEntries(view.tools.filter((t) => t.measures === 'angle').map((t) => [t.id, t.name])),
  );
  let picked = $state('');
  const tool = $derived(picked in tools ? picked : forms.tool('angle'));
  let way = $state<keyof typeof WAYS>('along');
  let slope = $state({ first: '', back: '' });
  const readSlope = () =>
    void takeOut(slope, ['first', 'back'], ({ first, back }) =>
      forms.record({ kind: 'slope', version: 1, way, typed: first, reversed_typed: back, tool }, JIG.slope),
    );
</script>

<Group title={JIG.instruments} soft={JIG.instrumentsSoft}>
  <ul class="plain">
    {#each view.instruments as line, i (i)}<li>{line}</li>{/each}
  </ul>
  <Row cols={5} end>
    <Choice label={JIG.instrument} options={tools} bind:value={() => tool, (v) => (picked = v)} />
    <Choice label={JIG.slope} options={WAYS} bind:value={way} />
    <Text label={JIG.first} bind:value={slope.first} figure max={20} />
    <Text label={JIG.turned} bind:value={slope.back} figure max={20} />
    <button type="button" class="button" disabled={!slope.first.trim() || !slope.back.trim()} onclick={readSlope}
      >{JIG.record}</button
    >
  </Row>
</Group>

<style>
  ul {
    font-size: var(--type-small);
  }
</style>
