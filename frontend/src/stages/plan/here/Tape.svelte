<script lang="ts">
  // The tape that asks for the plan, brought when it is first wanted.
  import type { Here } from './here.svelte';

  type Props = { here: Here };
  let { here }: Props = $props();
</script>

{#await import('./PlanTape.svelte') then { default: PlanTape }}<PlanTape {here} />{/await}
