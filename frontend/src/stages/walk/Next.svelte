<script lang="ts">
  // The one thing to do next, why, and the way there.
  import type { CarView } from '$lib/api/client';
  import type { Car } from '$lib/car.svelte';
  import { router } from '$lib/router.svelte';
  import { happeningOf, pageOf } from './next-step';
  import { WALK } from './texts';

  type Props = { car: Car; view: CarView };
  let { car, view }: Props = $props();
  const SHORT = 110; // letters: as much as a phone shows in three lines
  const next = $derived(view.next);
  const long = $derived(next.reason.length > SHORT);
  let opened = $state(''); // the reason that was asked for: the next one is closed again
  const whole = $derived(opened === next.reason);
  function go(): void {
    const what = happeningOf(next);
    if (!what) return router.go(`/cars/${car.slug}/${pageOf(view)}`);
    car.record({ kind: 'happened', version: 1, what, words: '', points: [] }, next.sentence);
  }
</script>

<section class="card" aria-label={WALK.next} data-done={next.kind === 'done' || undefined}>
  <div>
    <h2>{next.sentence}</h2>
    <p data-long={long || undefined} data-whole={whole || undefined}>{next.reason}</p>
    {#if long}<button
        type="button"
        class="why"
        aria-expanded={whole}
        onclick={() => (opened = whole ? '' : next.reason)}>{whole ? WALK.less : WALK.why}</button
      >{/if}
  </div>
  <button type="button" class="button" data-main onclick={go}>{WALK.go[next.kind]}</button>
</section>

<style>
  section {
    border-left: 10px solid var(--paint);
    display: grid;
    grid-template-columns: minmax(0, 1fr) 240px;
    gap: var(--gap-4);
    align-items: center;
    min-height: 118px;
  }
  .why {
    display: none;
  }
  @media (max-width: 700px) {
    section {
      grid-template-columns: minmax(0, 1fr);
    }
    [data-long]:not([data-whole]) {
      display: none;
    }
    .why {
      display: block;
      border: 0;
      background: none;
      padding: 0;
      min-height: var(--touch);
      min-width: var(--touch);
      text-align: left;
      text-decoration: underline;
    }
  }
  [data-done] {
    border-left-color: var(--layout);
  }
  h2 {
    font-size: var(--type-head);
  }
  p {
    margin-top: 4px;
    color: var(--ink-soft);
    max-width: 62em;
  }
  .button {
    min-height: 64px;
    font-size: 1.1875rem;
  }
</style>
