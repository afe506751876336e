<script lang="ts">
  // By which way each mark is read, where there is more than one.
  import Choice from '$parts/form/Choice.svelte';
  import { MARK_KINDS } from '$lib/kinds';
  import { theSheet } from './sheet.svelte';
  import { PLAN } from './texts';

  const { draft } = $derived(theSheet());
  const kinds = Object.keys(MARK_KINDS).filter((kind) => Object.keys(MARK_KINDS[kind]!.ways).length > 1);
</script>

{#each kinds as kind (kind)}
  <Choice
    label={PLAN.readBy(MARK_KINDS[kind]!.label)}
    options={MARK_KINDS[kind]!.ways}
    bind:value={
      () => draft.ways.read_by[kind] ?? Object.keys(MARK_KINDS[kind]!.ways)[0]!,
      (way) => (draft.ways.read_by[kind] = way)
    }
  />
{/each}
