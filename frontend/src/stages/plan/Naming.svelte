<script lang="ts">
  // The name of the car, what it is, and the units it is measured in.
  import Choice from '$parts/form/Choice.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import { theSheet } from './sheet.svelte';
  import { PLAN } from './texts';

  const sheet = theSheet();
  const { draft } = $derived(sheet);
  const FINEST = ['16', '32', '64'] as const;
  const words = Object.fromEntries(FINEST.map((n) => [n, `1/${n}`]));
</script>

<section class="card">
  <h1>{sheet.before ? PLAN.revise(sheet.before.name) : PLAN.begin} <span class="soft">{PLAN.soft}</span></h1>
  <Row cols={4} top>
    <Text label={PLAN.name} bind:value={draft.name} problem={sheet.at('name')} />
    <Text label={PLAN.about} bind:value={draft.about} max={200} />
    <Choice label={PLAN.units} options={PLAN.unitNames} bind:value={draft.units.system!} />
    {#if draft.units.system === 'inch_fraction'}
      <Choice
        label={PLAN.finest}
        options={words}
        bind:value={() => String(draft.units.finest), (n) => (draft.units.finest = Number(n) as 32)}
      />
    {/if}
  </Row>
</section>

<style>
  h1 {
    font-size: 1.25rem;
    margin-bottom: var(--gap-2);
  }
  span {
    font-weight: 400;
  }
</style>
