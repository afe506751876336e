<script lang="ts">
  // Asked once on each device: the passphrase, and who measures there. What stands on the page behind it stays.
  import { api } from '$lib/api/client';
  import { gate } from '$lib/gate.svelte';
  import { outbox } from '$lib/outbox.svelte';
  import { signAs, who } from '$lib/shelf';
  import { LET_IN } from './texts';

  let passphrase = $state('');
  let name = $state(who());
  let why = $state('');
  let box: HTMLDialogElement;
  $effect(() => box.showModal());

  async function knock(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    why = passphrase.trim() ? '' : LET_IN.missing;
    if (why) return; // whoever typed on at the tape has tried nothing
    try {
      await api.letIn(passphrase, name.trim());
      if (name.trim()) signAs(name.trim());
      box.close(); // the focus goes back to where it was
      gate.locked = false;
      void outbox.handOverAll();
    } catch (error) {
      why = (error as Error).message;
    }
  }
</script>

<dialog bind:this={box} aria-labelledby="let-in" oncancel={(e) => e.preventDefault()}>
  <form onsubmit={knock}>
    <h2 id="let-in">{LET_IN.title}</h2>
    <p>{LET_IN.how}</p>
    <label
      >{LET_IN.passphrase}
      <input
        class="field"
        bind:value={passphrase}
        autocomplete="current-password"
        autocapitalize="off"
        maxlength="200"
      />
    </label>
    <label>{LET_IN.who} <input class="field" bind:value={name} maxlength="80" /></label>
    {#if why}<p class="no" role="alert">{why}</p>{/if}
    <button class="button" data-main>{LET_IN.enter}</button>
  </form>
</dialog>

<style>
  dialog {
    border: 2px solid var(--ink);
    border-radius: var(--round);
    background: var(--card);
    padding: var(--gap-4);
    max-width: min(440px, 94vw);
  }
  form {
    display: grid;
    gap: var(--gap-3);
  }
  label {
    display: grid;
    gap: 4px;
  }
  p {
    margin: 0;
  }
</style>
