<script lang="ts">
  // The datum: which points lay the plane, the line and the origin; what carries it on when it is in danger.
  import type { JigView, What } from '$lib/api/client';
  import Choice from '$parts/form/Choice.svelte';
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import { spoken } from '$lib/marks';
  import type { JigForms } from './jig-forms.svelte';
  import { DATUM_WAYS, JIG } from './texts';

  type Props = { forms: JigForms; view: JigView };
  let { forms, view }: Props = $props();

  const PARTS = [1, 2, 3]
    .map((n) => `${JIG.short.plane} ${n}`)
    .concat(
      [1, 2].map((n) => `${JIG.short.line} ${n}`),
      [JIG.short.point],
    );
  let datum = $state<string[]>(PARTS.map(() => ''));
  let words = $state('');
  let way = $state<(typeof DATUM_WAYS)[number]>('named points');
  $effect(() => {
    if (view.datum) datum = [...view.datum.plane, ...view.datum.line, view.datum.point];
  });
  const touching = $derived(forms.survey.choosing?.what === 'datum' ? forms.survey.choosing.points : null);
  $effect(() => {
    if (touching?.length) datum = PARTS.map((_, i) => touching[i] ?? '');
  });
  const chosen = $derived(view.datum ? [...view.datum.plane, ...view.datum.line, view.datum.point] : []);
  const carried = $derived(view.carried ? [...new Set([...view.carried.plane, ...view.carried.line])] : []);
  const choose = () => {
    const [a, b, c, d, e, point] = datum as [string, string, string, string, string, string];
    const what: What = { kind: 'datum', version: 1, plane: [a, b, c], line: [d, e], point, words, way, figures: null };
    void forms.record(what, JIG.datum);
  };
</script>

<Group title={JIG.datum}>
  <p class="soft">{view.datum ? JIG.chosen(chosen.map(spoken)) : JIG.noDatum} {view.axes}</p>
  {#if view.datum?.words}<p class="soft">{JIG.found(view.datum.words)}</p>{/if}
  <p>
    <button type="button" class="button" onclick={() => forms.survey.choose('datum', PARTS.length)}>{JIG.touch}</button>
    {#if touching}<span role="status">{JIG.touchNext(PARTS[touching.length] ?? '')}</span>{/if}
  </p>
  <Row cols={3}>
    {#each PARTS as part, i (part)}
      <Choice label={part} name="{JIG.datum}, {part}" options={forms.names} empty="" bind:value={datum[i]!} />
    {/each}
  </Row>
  {#if view.carried}
    {@const next = view.carried}
    <Row cols={1} end>
      <p><b>{JIG.carry}</b> {carried.map(spoken).join(', ')}</p>
      <button type="button" class="button" data-main onclick={() => void forms.record(next, JIG.datum)}
        >{JIG.confirm}</button
      >
    </Row>
  {/if}
  {#if view.datum_note}<p class="caution">{view.datum_note}</p>{/if}
  <Choice label={JIG.datumWay} options={DATUM_WAYS} bind:value={way} />
  <Row cols={1} end>
    <Text label={JIG.words} bind:value={words} max={400} />
    <button type="button" class="button" disabled={datum.some((d) => !d)} onclick={choose}>{JIG.choose}</button>
  </Row>
</Group>
