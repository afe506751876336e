<script lang="ts">
  // The form of one kind of entry, as the core describes it: a field for each of its fields, and a button that writes it down.
  import type { What } from '$lib/api/client';
  import { emptyForm, entryOf, FORMS, isWhole } from '$lib/kinds';
  import KindField from './KindField.svelte';

  type Props = {
    kind: string;
    points: string[];
    button: string;
    record: (what: What, title: string) => Promise<boolean>;
  };
  let { kind, points, button, record }: Props = $props();

  const form = $derived(FORMS[kind]!);
  // svelte-ignore state_referenced_locally (a form stays that of its kind)
  let values = $state(emptyForm(kind));
  const kept = (name: string) => ['choice', 'point', 'check'].includes(form.fields.find((f) => f.name === name)!.as);

  /** What was typed leaves the form at once, and comes back where it is refused and nothing new was typed meanwhile. */
  async function write(): Promise<void> {
    const sent = { ...values };
    for (const name of Object.keys(values)) if (!kept(name)) values[name] = '';
    if (await record(entryOf(kind, sent), form.title)) return;
    for (const name of Object.keys(values)) values[name] ||= sent[name]!;
  }
</script>

<div class="grid kind" role="group" aria-label={form.title}>
  {#each form.fields as field (field.name)}<KindField {field} {points} bind:value={values[field.name]!} />{/each}
  <button type="button" class="button" disabled={!isWhole(kind, values)} onclick={() => void write()}>{button}</button>
</div>

<style>
  .kind {
    grid-template-columns: repeat(auto-fit, minmax(110px, 1fr));
  }
  .kind button {
    justify-self: end;
  }
</style>
