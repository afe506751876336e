<script lang="ts">
  // Where each aim is from, how far it is trusted, and what another source says.
  import Choice from '$parts/form/Choice.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import { markName } from './draft';
  import { theSheet } from './sheet.svelte';
  import { PLAN } from './texts';

  const sheet = theSheet();
  const given = $derived(Object.entries(sheet.aims).filter(([, a]) => a.aim !== null));
</script>

{#if given.length}
  <details>
    <summary>{PLAN.sources}</summary>
    {#each given as [mark, aim] (mark)}
      <Row label={markName(mark)} cols={4}>
        <Choice label={PLAN.beyond} name="{mark}, {PLAN.beyond}" options={PLAN.beyonds} bind:value={aim.beyond} />
        <Text
          label="{markName(mark)}: {PLAN.source.toLowerCase()}"
          name="{mark}, {PLAN.source}"
          bind:value={aim.source}
          max={400}
        />
        <Choice label={PLAN.trust} name="{mark}, {PLAN.trust}" options={PLAN.trusts} bind:value={aim.trust} />
        <Text label={PLAN.other} name="{mark}, {PLAN.other}" bind:value={aim.other} max={400} />
      </Row>
    {/each}
  </details>
{/if}

<style>
  summary {
    min-height: var(--touch);
    display: flex;
    align-items: center;
    cursor: pointer;
    font-size: var(--type-small);
  }
</style>
