<script lang="ts">
  // What is still wrong with the plan, and the button that keeps it.
  import { link } from '$lib/router.svelte';
  import { theSheet } from './sheet.svelte';
  import { PLAN } from './texts';

  const sheet = theSheet();
</script>

<div class="keep">
  <p class="no" role="alert">{sheet.sentence}</p>
  {#if sheet.car}<a class="button" href="/cars/{sheet.car.slug}" onclick={() => void sheet.letGo()} use:link
      >{PLAN.cancel}</a
    >{/if}
  <button class="button" data-main
    >{sheet.unusual || (sheet.told && sheet.sentence) ? PLAN.anyway : sheet.car ? PLAN.save : PLAN.start}</button
  >
</div>

<style>
  div {
    position: sticky;
    bottom: 0;
    background: var(--bench);
    padding: var(--gap-2) 0;
    display: flex;
    gap: var(--gap-3);
    justify-content: end;
    align-items: center;
    border-top: 2px solid var(--steel);
  }
  p {
    flex: 1;
  }
</style>
