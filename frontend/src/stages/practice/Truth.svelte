<script lang="ts">
  // What a practice car hid, how it truly stands now, and where the time went. Shown when it is asked for, not before.
  import { api, type Truth } from '$lib/api/client';
  import type { Car } from '$lib/car.svelte';
  import { link } from '$lib/router.svelte';
  import { PRACTICE } from './texts';
  import TrueMarks from './TrueMarks.svelte';

  type Props = { car: Car };
  let { car }: Props = $props();
  let truth = $state.raw<Truth | null>(null);
  let sentence = $state('');

  async function look(): Promise<void> {
    try {
      await car.answered();
      [truth, sentence] = [await api.truth(car.slug), ''];
    } catch (error) {
      sentence = String((error as Error).message);
    }
  }
</script>

<main class="card">
  <h1>{PRACTICE.truthTitle}</h1>
  {#if truth}
    <p class="large">{truth.sentence}</p>
    <p class="soft">{truth.fault}</p>
    <TrueMarks marks={truth.marks} />
    <div class="two">
      <section>
        <h2>{PRACTICE.off}</h2>
        <ul class="plain">
          {#each truth.off as line, i (i)}<li>{line}</li>{/each}
        </ul>
      </section>
      {#if truth.spent.length}
        <section>
          <h2>{PRACTICE.spent}</h2>
          <ul class="plain">
            {#each truth.spent as row, i (i)}<li>
                {row.what} <b class="fig">{PRACTICE.minutes(row.minutes)}</b>
              </li>{/each}
          </ul>
        </section>
      {/if}
    </div>
  {:else}
    <p>{PRACTICE.before}</p>
    <button type="button" class="button" data-main onclick={() => void look()}>{PRACTICE.look}</button>
  {/if}
  {#if sentence}<p class="no" role="alert">{sentence}</p>{/if}
  <p>
    <a class="button" href="/cars/{car.slug}" use:link>{PRACTICE.back}</a>
    <a class="button" href="/practice" use:link>{PRACTICE.another}</a>
  </p>
</main>

<style>
  main {
    margin: var(--gap-3);
    overflow: auto;
  }
  .large {
    font-size: 1.25rem;
    font-weight: 700;
    margin: 4px 0;
  }
  .two {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: var(--gap-4);
  }
  h2 {
    font-size: 1rem;
  }
  ul {
    columns: 2;
  }
</style>
