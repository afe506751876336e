<script lang="ts">
  // The level of the jig: its feet and what to do with each, a foot read, a slope read both ways round.
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
  const WAYS = { along: JIG.alongWay, across: JIG.acrossWay } as const;
  let foot = $state('');
  let read = $state({ typed: '' });
  let way = $state<keyof typeof WAYS>('along');
  let slope = $state({ first: '', back: '' });

  const readFoot = () =>
    void takeOut(read, ['typed'], ({ typed }) =>
      forms.record(
        { kind: 'foot', version: 1, foot, typed, tool: forms.tool('length', 'rule') },
        `${JIG.foot} ${foot}: ${typed}`,
      ),
    );
  const readSlope = () =>
    void takeOut(slope, ['first', 'back'], ({ first, back }) =>
      forms.record(
        { kind: 'slope', version: 1, way, typed: first, reversed_typed: back, tool: forms.tool('angle') },
        JIG.slope,
      ),
    );
</script>

<Group title={JIG.level}>
  <p><b>{level.sentence}</b> {level.notes.join(' ')}</p>
  <ul class="plain">
    {#each level.feet as f (f.name)}
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
  <Row cols={3} end>
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
    display: grid;
    grid-template-columns: repeat(2, 1fr);
    gap: 2px 14px;
    font-size: var(--type-small);
  }
  [data-past] {
    opacity: 0.6;
  }
</style>
