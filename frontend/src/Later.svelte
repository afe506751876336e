<script lang="ts">
  // A page that is brought when it is opened; asked for again where it did not come.
  import type { Car } from '$lib/car.svelte';
  import { bring, pageHere, type PageName } from './pages';
  import { FRAME } from '$parts/texts';

  type Props = { page: PageName; car?: Car | undefined };
  let { page, car }: Props = $props();
  const AGAIN_MS = 1500;
  let brought = $state.raw<{ page: PageName; body: NonNullable<ReturnType<typeof pageHere>> } | null>(null);
  let away = $state(false);
  const body = $derived(pageHere(page) ?? (brought?.page === page ? brought.body : undefined));
  $effect(() => {
    const wanted = page;
    let timer = 0;
    const ask = (): void =>
      void bring(wanted).then(
        (found) => ([brought, away] = [{ page: wanted, body: found }, false]),
        () => ((away = true), (timer = window.setTimeout(ask, AGAIN_MS))),
      );
    if (!pageHere(wanted)) ask();
    return () => clearTimeout(timer);
  });
</script>

{#if body}
  {@const Body = body}
  <Body car={car!} />
{:else}
  <main class="card" aria-busy="true"><p role="status">{away ? FRAME.pageAway : '…'}</p></main>
{/if}

<style>
  .card {
    margin: var(--gap-4);
    align-self: start;
  }
</style>
