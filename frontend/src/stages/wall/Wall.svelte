<script lang="ts">
  // For the wall of the shop: what to do now, the figure, and how far there is still to go, to be read across the floor. It follows the car by itself.
  import type { Car } from '$lib/car.svelte';
  import { capital, cornerName, markKindOf, placeOf, wholeName } from '$lib/kinds';
  import { CORNER_WORDS, CORNERS } from '$lib/marks';
  import { WALL } from './texts';

  type Props = { car: Car };
  let { car }: Props = $props();
  const view = $derived(car.view!);
  const turn = $derived(
    view.next.kind === 'lift'
      ? view.lift?.stops
          .flatMap((s) => s.turns.map((t) => ({ ...t, corner: s.corner })))
          .find((t) => t.left && !t.stuck)
      : undefined,
  );
  const left = $derived(view.lift?.stops.flatMap((s) => s.turns).filter((t) => t.left && !t.stuck).length ?? 0);
  const nameOf = (mark: string) => {
    const corner = CORNERS.find((c) => c === placeOf(mark));
    return corner ? `${CORNER_WORDS[corner]} ${cornerName(markKindOf(mark)).toLowerCase()}` : wholeName(mark, 'label');
  };
  const out = $derived(view.marks.filter((m) => m.state === 'out').slice(0, 8));
</script>

<main>
  <h1 class="hidden">{WALL.title}</h1>
  <section aria-label={WALL.now} aria-live="polite">
    {#if turn}
      <p class="what">{CORNER_WORDS[turn.corner]}, {turn.name}</p>
      <p class="figure fig">{turn.size} <span>{turn.way}</span></p>
      {#if turn.seen}<p class="more">{capital(turn.seen)}.</p>{/if}
      <p class="more">{turn.then} {turn.caution}</p>
      <p class="more">{WALL.left(left)}</p>
    {:else}
      <p class="figure words">{view.next.sentence}</p>
      <p class="more">{view.next.reason}</p>
    {/if}
  </section>
  <section aria-label={WALL.toGo}>
    <h2>{WALL.toGo} <span>· {view.judged ? WALL.hold(view.holding, view.judged) : WALL.none}</span></h2>
    <ul class="plain">
      {#each out as mark (mark.mark)}
        <li><span>{nameOf(mark.mark)}</span><b class="fig">{mark.do}</b></li>
      {:else}<li>{WALL.nothing}</li>{/each}
    </ul>
  </section>
</main>

<style>
  main {
    display: grid;
    gap: 2vw;
    padding: clamp(12px, 2.4vw, 40px);
    align-content: start;
  }
  section:first-child {
    border-left: clamp(8px, 1.4vw, 24px) solid var(--paint);
    padding-left: clamp(12px, 2vw, 36px);
  }
  .what {
    font-size: clamp(1.5rem, 4vw, 4rem);
    font-weight: 700;
  }
  .figure {
    font-size: clamp(2.5rem, 11vw, 12rem);
    line-height: 1.05;
  }
  .figure span {
    font-size: 0.6em;
  }
  .words {
    font-size: clamp(2.5rem, 7vw, 7rem);
    font-weight: 700;
  }
  .more {
    font-size: clamp(1.25rem, 2.2vw, 2.5rem);
    color: var(--ink-soft);
  }
  h2 {
    font-size: clamp(1.25rem, 2.4vw, 2.6rem);
  }
  h2 span {
    font-weight: 400;
    color: var(--ink-soft);
  }
  li {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 0 2vw;
    border-top: 2px solid var(--edge);
    font-size: clamp(1.25rem, 3vw, 3.4rem);
  }
  li b {
    color: var(--rust);
    font-weight: 400;
  }
</style>
