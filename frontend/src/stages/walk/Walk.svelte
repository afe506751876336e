<script lang="ts">
  // The overview of every mark on the car, and the one thing to do next.
  import type { Corner, MarkView } from '$lib/api/client';
  import type { Car } from '$lib/car.svelte';
  import { markKindOf, MARK_KINDS } from '$lib/kinds';
  import { link, router } from '$lib/router.svelte';
  import CarAbove from '$parts/drawing/CarAbove.svelte';
  import Stage from '$parts/frame/Stage.svelte';
  import Back from './Back.svelte';
  import CornerMarks from './CornerMarks.svelte';
  import Next from './Next.svelte';
  import { WALK } from './texts';
  import WholeMarks from './WholeMarks.svelte';

  type Props = { car: Car };
  let { car }: Props = $props();
  const view = $derived(car.view!);
  const stands = $derived([
    view.judged ? WALK.hold(view.holding, view.judged) : WALK.none,
    ...(view.condition.settled ? [] : [WALK.unsettled]),
    ...(view.condition.bar_connected ? [] : [WALK.bar]),
  ]);
  const open = (corner: Corner, mark?: MarkView) => {
    const kind = mark ? markKindOf(mark.mark) : 'height';
    router.go(`/cars/${car.slug}/set/${corner}/${MARK_KINDS[kind]!.read}`);
  };
</script>

{#snippet foot()}<Next {car} {view} />{/snippet}

<Stage columns="40fr 60fr" {foot}>
  <CarAbove {view} lit={view.next.corner} onpick={(corner) => open(corner)} />
  <div class="card">
    <h1>{WALK.title} <span>· {stands.join(' · ')}</span> <a href="/cars/{car.slug}/wall" use:link>{WALK.wall}</a></h1>
    <Back {car} />
    {#each view.notices as notice, i (i)}<p class="no" role="alert">{notice}</p>{/each}
    {#if view.practice}
      <p class="soft">
        {WALK.practice(view.practice)} <a href="/cars/{car.slug}/practice" use:link>{WALK.truth}</a>
      </p>
    {/if}
    <CornerMarks {view} onpick={open} />
    <WholeMarks {view} />
  </div>
</Stage>

<style>
  .card {
    overflow: auto;
  }
  p {
    margin: 2px 0 0;
  }
  h1 {
    font-size: 1.0625rem;
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0 6px;
    margin: -10px 0 -6px;
  }
  h1 a {
    margin-left: auto;
    display: inline-flex;
    align-items: center;
    font-weight: 400;
    font-size: var(--type-small);
    min-height: var(--touch);
    min-width: var(--touch);
  }
  span {
    font-weight: 400;
    color: var(--ink-soft);
  }
</style>
