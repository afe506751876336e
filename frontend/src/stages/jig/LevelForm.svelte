<script lang="ts">
  // The level of the jig: its feet and what to do with each, a foot read.
  import type { JigView } from '$lib/api/client';
  import { takeOut } from '$lib/takeout';
  import Choice from '$parts/form/Choice.svelte';
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import type { JigForms } from './jig-forms.svelte';
  import { JIG } from './texts';

  type Props = { forms: JigForms; level: NonNullable<JigView['level']> };
  let { forms, level }: Props = $props();
  let foot = $state('');
  let read = $state({ typed: '' });

  const readFoot = () =>
    void takeOut(read, ['typed'], ({ typed }) =>
      forms.record(
        { kind: 'foot', version: 1, foot, typed, tool: forms.tool('length', 'rule') },
        `${JIG.foot} ${foot}: ${typed}`,
      ),
    );
</script>

<Group title={JIG.level}>
  <p><b>{level.sentence}</b> {level.notes.join(' ')}</p>
  <ul class="plain">
    {#each level.feet as f, i (i)}
      <li data-past={!f.counts || undefined}><b>{f.name}</b> <span class="fig">{f.say || '—'}</span> {f.do}</li>
    {/each}
  </ul>
  <Row cols={2} end>
    <Choice label={JIG.foot} options={level.feet.map((f) => f.name)} empty="" bind:value={foot} />
    <Text label={JIG.footRead} bind:value={read.typed} figure max={40} title={JIG.footSoft} />
    <button type="button" class="button" disabled={!foot || !read.typed.trim()} onclick={readFoot}
      >{JIG.readFoot}</button
    >
  </Row>
</Group>

<style>
  ul {
    display: grid;
    grid-template-columns: repeat(2, 1fr);
    gap: 2px 14px;
    font-size: var(--type-small);
  }
  [data-past] {
    opacity: 0.6;
  }
</style>
