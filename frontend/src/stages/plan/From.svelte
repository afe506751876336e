<script lang="ts">
  // A new car may take over the plan of another one, or one from a file.
  import Choice from '$parts/form/Choice.svelte';
  import Field from '$parts/form/Field.svelte';
  import Row from '$parts/form/Row.svelte';
  import { theSheet } from './sheet.svelte';
  import { PLAN } from './texts';

  const sheet = theSheet();
  let slug = $state('');
  const cars = $derived(Object.fromEntries(sheet.others.map((o) => [o.slug, o.name])));
</script>

<section class="card" aria-label={PLAN.from}>
  <Row cols={2}>
    <Choice
      label="{PLAN.from} {PLAN.fromCar}"
      options={cars}
      bind:value={slug}
      empty={PLAN.nothing}
      onpick={(to) => void sheet.takeFrom(to)}
    />
    <Field label="{PLAN.from} {PLAN.fromFile}"
      ><input
        class="field"
        type="file"
        accept=".json,application/json"
        onchange={(e) => void sheet.takeFile(e.currentTarget.files?.[0])}
      /></Field
    >
  </Row>
</section>
