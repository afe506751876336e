<script lang="ts">
  // By which aims readings are judged, and starting aims by what the car is for: in the table of figures and beside the drawing.
  import Choice from '$parts/form/Choice.svelte';
  import { theSheet } from './sheet.svelte';
  import { PLAN } from './texts';

  const sheet = theSheet();
  let purpose = $state('');
</script>

<Choice label={PLAN.judged} options={PLAN.stages} bind:value={sheet.draft.stage} />
<Choice
  label={PLAN.purpose}
  options={Object.keys(sheet.purposes)}
  bind:value={purpose}
  empty=""
  onpick={(p) => sheet.startAims(p)}
/>
<p class="soft">{PLAN.purposeSoft}</p>
