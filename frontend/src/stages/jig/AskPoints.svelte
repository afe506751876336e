<script lang="ts">
  // Any measured points, touched on the drawing: how far apart, how square a member or a bay, the middle of a hole by its rim.
  import { api } from '$lib/api/client';
  import Choice from '$parts/form/Choice.svelte';
  import Group from '$parts/form/Group.svelte';
  import Pressed from '$parts/form/Pressed.svelte';
  import Row from '$parts/form/Row.svelte';
  import { spoken } from '$lib/marks';
  import type { JigForms } from './jig-forms.svelte';
  import { ASKED } from './texts';

  type Props = { forms: JigForms };
  let { forms }: Props = $props();
  const { survey } = $derived(forms);
  type Ask = keyof typeof ASKED.asks;
  let ask = $state<Ask>('bay');
  let lines = $state.raw<string[]>([]);
  const chosen = $derived(survey.choosing?.what === 'ask' ? survey.choosing.points : []);
  const most = $derived(ASKED.most[ask]);
  let more = $state('');

  const begin = (what: Ask) => {
    [ask, lines] = [what, []];
    survey.choose('ask', ASKED.most[what]);
  };
  $effect(() => {
    const points = chosen;
    const what = ask;
    if (points.length < ASKED.least[what]) return void (lines = []);
    let over = false;
    void api.askPoints(survey.car.slug, { ask: what, points }).then(
      (told) => over || (lines = told.lines),
      (why: Error) => over || (lines = [why.message]),
    );
    return () => (over = true);
  });
</script>

<Group title={ASKED.title} soft={ASKED.soft}>
  <Pressed label={ASKED.title} options={ASKED.asks} value={ask} onpick={begin} />
  {#if survey.choosing?.what === 'ask'}
    <p class="soft" role="status">{ASKED.touch(ASKED.order[ask], chosen.length, most)}</p>
    <Row cols={2} end>
      <Choice
        label={ASKED.byName}
        options={forms.names.filter((n) => !chosen.includes(n))}
        empty=""
        bind:value={more}
        onpick={(name) => {
          survey.pick(name);
          more = '';
        }}
      />
      <button type="button" class="button" onclick={() => survey.choose('ask', most)}>{ASKED.again}</button>
    </Row>
    {#if chosen.length}<p>{chosen.map(spoken).join(' · ')}</p>{/if}
    <ul class="plain" aria-live="polite">
      {#each lines as line, i (i)}<li>{line}</li>{/each}
    </ul>
  {:else}
    <p><button type="button" class="button" onclick={() => begin(ask)}>{ASKED.begin}</button></p>
  {/if}
</Group>

<style>
  li {
    font-size: var(--type-body);
    border-top: 1px solid var(--edge);
    padding: 4px 0;
  }
</style>
