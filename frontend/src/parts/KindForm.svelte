<script lang="ts">
  // The form of one kind of entry, as the core describes it: a field for each of its fields, and a button that writes it down.
  import type { What } from '$lib/api/client';
  import { emptyForm, entryOf, FORMS, isWhole } from '$lib/kinds';
  import { takeOut } from '$lib/takeout';
  import Row from './form/Row.svelte';
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

  const typed = $derived(form.fields.map((f) => f.name).filter((name) => !kept(name)));
  const write = () =>
    takeOut(values as Record<string, string>, typed, (sent) => record(entryOf(kind, sent), form.title));
</script>

<Row cols={Math.min(form.fields.length, 4)} end={form.fields.length <= 4} label={form.title}>
  {#each form.fields as field (field.name)}<KindField {field} {points} bind:value={values[field.name]!} />{/each}
  <button type="button" class="button" disabled={!isWhole(kind, values)} onclick={() => void write()}>{button}</button>
</Row>
