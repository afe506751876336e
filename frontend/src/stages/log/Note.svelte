<script lang="ts">
  // A note in words. It leaves its field at once; where it is not taken it stands in the list with its words.
  import type { Car } from '$lib/car.svelte';
  import Text from '$parts/form/Text.svelte';
  import { LOG } from './texts';

  type Props = { car: Car };
  let { car }: Props = $props();
  let note = $state('');
  function keep(event: SubmitEvent): void {
    event.preventDefault();
    const words = note.trim();
    if (!words) return;
    car.record({ kind: 'note', version: 1, words, corner: null }, `${LOG.note}: ${words}`);
    note = '';
  }
</script>

<form class="card" onsubmit={keep}>
  <Text label={LOG.note} bind:value={note} rows={2} max={2000} />
  <button class="button">{LOG.recordNote}</button>
</form>

<style>
  form {
    display: grid;
    gap: var(--gap-2);
  }
</style>
