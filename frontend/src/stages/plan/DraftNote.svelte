<script lang="ts">
  // A draft that was found in this browser: taken up again, or begun from an earlier plan and asked about; or overtaken.
  import { theSheet } from './sheet.svelte';
  import { DRAFTS } from './texts';

  const sheet = theSheet();
</script>

{#if sheet.unkept}
  <p class="no" role="alert">{DRAFTS.refused}</p>
{/if}
{#if sheet.overtaken}
  <p class="card" role="status">
    {DRAFTS.overtaken(sheet.overtaken)}
    <button type="button" class="button" onclick={() => sheet.layOnLatest()}>{DRAFTS.layOn}</button>
    <button type="button" class="button" onclick={() => void sheet.letGo()}>{DRAFTS.drop}</button>
  </p>
{:else if sheet.found}
  <p class="card" role="status">
    {sheet.older ? DRAFTS.older : DRAFTS.back}
    {#if sheet.older}<button type="button" class="button" onclick={() => sheet.takeUp()}>{DRAFTS.take}</button>{/if}
    <button type="button" class="button" onclick={() => void sheet.letGo()}>{DRAFTS.drop}</button>
  </p>
{/if}

<style>
  .card {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
    border-left: 10px solid var(--paint);
  }
</style>
