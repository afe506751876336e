<script lang="ts">
  // How a phone gets to the car: the address of the shop's door, as words and as a code; or how to open that door.
  import { api } from '$lib/api/client';
  import { until } from '$lib/api/until';
  import Devices from './Devices.svelte';
  import { FRAME } from '$parts/texts';
  import { SHOP } from './texts';

  let found = $state.raw<Awaited<ReturnType<typeof api.gate>> | null>(null);
  $effect(() => until(api.gate, (gate) => (found = gate)));
</script>

<main>
  <h1>{FRAME.shop}</h1>
  {#if found?.shop}
    <img src="/api/gate/code.svg" alt={SHOP.code} />
    <div>
      <p>{SHOP.how}</p>
      <p class="soft">{SHOP.address}</p>
      <p class="fig">{found.address}</p>
      <p>{SHOP.same}</p>
      <p class="soft">{SHOP.care}</p>
      {#if found.here}<Devices />{/if}
    </div>
  {:else if found}
    <div>
      <p>{SHOP.none}</p>
      <p class="fig">{SHOP.start}</p>
      <p>{SHOP.noneMore}</p>
      <p class="soft">{SHOP.care}</p>
    </div>
  {/if}
</main>

<style>
  main {
    padding: var(--gap-4);
    display: grid;
    grid-template-columns: auto minmax(0, 34rem);
    gap: var(--gap-4);
    align-content: start;
    justify-content: center;
  }
  h1 {
    grid-column: 1 / -1;
  }
  div {
    grid-column: -2;
    display: grid;
    gap: var(--gap-2);
    align-content: start;
  }
  img {
    width: min(340px, 80vw);
    border: 1px solid var(--edge);
    background: var(--paper);
  }
  .fig {
    font-size: 1.75rem;
    margin: 0;
    overflow-wrap: anywhere;
  }
  @media (max-width: 700px) {
    main {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
