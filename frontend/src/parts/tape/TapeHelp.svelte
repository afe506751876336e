<script lang="ts">
  // What the keys do here and how the figure is read, on one sheet; closed by any key.
  import type { Scene } from '$lib/kinds';
  import HowTo from './HowTo.svelte';
  import { TAPE } from '../texts';
  import type { Hook } from './desk.svelte';

  type Props = {
    title: string;
    how: string;
    hooks: Hook[];
    lesson?: { scene: Scene; mistake: string } | undefined;
    onclose: () => void;
  };
  let { title, how, hooks, lesson, onclose }: Props = $props();
  let sheet: HTMLDialogElement;
  $effect(() => sheet.showModal());
</script>

<dialog
  bind:this={sheet}
  aria-label={TAPE.help}
  {onclose}
  onkeydown={(e) => {
    if (e.key === 'Tab') return;
    e.preventDefault();
    sheet.close();
  }}
>
  <h2>{title}</h2>
  <p>{how}</p>
  {#if lesson}<HowTo scene={lesson.scene} mistake={lesson.mistake} />{/if}
  {#if hooks.length}<dl>
      {#each hooks as hook, i (i)}<dt>{hook.key}</dt>
        <dd>{hook.does}</dd>{/each}
      <dt>Esc</dt>
      <dd>{TAPE.clear}</dd>
      <dt>?</dt>
      <dd>{TAPE.help}</dd>
    </dl>{/if}
  <p class="soft">{TAPE.figures}</p>
  <button type="button" class="button" onclick={() => sheet.close()}>{TAPE.close}</button>
</dialog>

<style>
  dialog {
    border: 2px solid var(--ink);
    border-radius: var(--round);
    background: var(--card);
    color: var(--ink);
    max-width: min(640px, calc(100vw - 24px));
    padding: var(--gap-4);
  }
  dialog::backdrop {
    background: var(--layout-deep);
    opacity: 0.6;
  }
  dl {
    display: grid;
    grid-template-columns: max-content 1fr;
    gap: 4px 18px;
    margin: 12px 0;
  }
  dt {
    font-weight: 700;
  }
  dd {
    margin: 0;
  }
  .button {
    margin-top: 12px;
  }
</style>
