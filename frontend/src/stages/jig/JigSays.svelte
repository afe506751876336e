<script lang="ts">
  // What is to be known first of the frame: what is wrong, what is loose, or that all agrees.
  import type { JigView } from '$lib/api/client';
  import Bays from './Bays.svelte';
  import Says from '$parts/frame/Says.svelte';
  import { JIG } from './texts';

  type Props = { view: JigView };
  let { view }: Props = $props();
  const wrong = $derived(view.wrong.length > 0);
  const more = $derived(view.loose.length > 1 ? `+ ${view.loose.length - 1}` : '');
</script>

<Says>
  {#if !view.pickups.length}<Bays {view} />{/if}
  {#if wrong}<p class="no"><b>{JIG.wrongHead}.</b> {view.wrong.join(' ')}</p>
  {:else if view.loose.length}<p><b>{JIG.looseHead}.</b> {view.loose[0]} {more}</p>
  {:else if view.readings.some((r) => r.counts)}
    <p>{JIG.sound} {view.since ? `${JIG.since(view.since)}.` : ''} {view.moved_first}</p>
  {:else}<p>{JIG.noReadings}</p>{/if}
  {#if view.notes.length && !wrong && !view.since}<p class="soft">{view.notes[0]}</p>{/if}
</Says>
