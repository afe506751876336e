<script lang="ts">
  // What is wanted of axles and of the car as a whole.
  import { WHOLE_MARKS } from '$lib/kinds';
  import Row from '$parts/form/Row.svelte';
  import AimPair from './AimPair.svelte';
  import { wholeLabel } from './draft';
</script>

<Row cols={5}>
  {#each WHOLE_MARKS as mark (mark)}
    <div><span class="soft">{wholeLabel(mark)}</span><AimPair {mark} name={wholeLabel(mark)} /></div>
  {/each}
</Row>
