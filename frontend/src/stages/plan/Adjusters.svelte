<script lang="ts">
  // The adjusters of a car: tubes, rod ends, shims and perches, each with its thread and what is left of it.
  import Card from '$parts/form/Card.svelte';
  import AdjusterForm from './AdjusterForm.svelte';
  import { type AdjusterKind, newAdjuster } from './draft';
  import { theSheet } from './sheet.svelte';
  import { PLAN } from './texts';

  const { draft } = $derived(theSheet());
  const add = (kind: AdjusterKind) =>
    draft.adjusters.push(
      newAdjuster(
        kind,
        draft.adjusters.map((a) => a.id),
      ),
    );
</script>

<Card title={PLAN.adjusters} soft={PLAN.adjustersSoft} label="">
  {#each draft.adjusters as a (a)}
    <AdjusterForm {a} ontake={() => (draft.adjusters = draft.adjusters.filter((b) => b.id !== a.id))} />
  {/each}
  <p>
    {#each Object.entries(PLAN.add) as [kind, words] (kind)}
      <button type="button" class="button" onclick={() => add(kind as AdjusterKind)}>{words}</button>
    {/each}
  </p>
</Card>

<style>
  p {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
</style>
