<script lang="ts">
  // Where the aim in hand is from, how far it is trusted, and what another source says; or the same of all that are given.
  import Card from '$parts/form/Card.svelte';
  import Choice from '$parts/form/Choice.svelte';
  import Text from '$parts/form/Text.svelte';
  import { DRAWN, PLAN } from '../texts';
  import type { PlanDesk } from './plan-desk.svelte';

  type Props = { desk: PlanDesk };
  let { desk }: Props = $props();
  const table = $derived(desk.chapter === 'build' ? desk.sheet.draft.buildAims : desk.sheet.draft.aims);
  const marks = $derived(desk.ask.path.split('.').slice(1, -1).join('.').split('+'));
  const aim = $derived(desk.every.find((a) => a.chapter === desk.chapter && a.group === desk.ask.group)); // asked for before its tolerance
  const held = $derived(marks.map((m) => table[m]).filter((a) => a !== undefined));
  const given = $derived(Object.values(table).filter((a) => a.aim !== null));
  const first = $derived(held[0]);
  const say = (part: 'source' | 'other', words: string) => held.forEach((a) => (a[part] = words));
  const all = () => given.forEach((a) => Object.assign(a, { source: first!.source, trust: first!.trust }));
</script>

{#if first && first.aim !== null}
  <Card title="{aim?.title}: {PLAN.source.toLowerCase()}" label={DRAWN.sourceTitle}>
    <Choice
      label={PLAN.beyond}
      options={PLAN.beyonds}
      bind:value={() => first.beyond, (v) => held.forEach((a) => (a.beyond = v))}
    />
    <Text label={PLAN.source} bind:value={() => first.source, (v) => say('source', v)} max={400} />
    <Choice
      label={PLAN.trust}
      options={PLAN.trusts}
      bind:value={() => first.trust, (v) => held.forEach((a) => (a.trust = v))}
    />
    <Text label={PLAN.other} bind:value={() => first.other, (v) => say('other', v)} max={400} />
    <button type="button" class="button" onclick={all}>{DRAWN.sourceAll}</button>
  </Card>
{/if}

<style>
  .button {
    font-weight: 400;
  }
</style>
