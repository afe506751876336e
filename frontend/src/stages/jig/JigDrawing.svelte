<script lang="ts">
  // The frame: points as planned (thin rings) and as measured (dots with their doubt), arrows of what is off or was pulled; from three sides, or turned by hand.
  import type { JigView } from '$lib/api/client';
  import Pressed from '$parts/form/Pressed.svelte';
  import FrameLines from './FrameLines.svelte';
  import FramePoint from './FramePoint.svelte';
  import FrameWords from './FrameWords.svelte';
  import { arrow, FrameView, type P3, seenOf, type Side } from './frame-view';
  import type { Survey } from './survey.svelte';
  import { JIG } from './texts';

  type Props = { survey: Survey; view: JigView };
  let { survey, view }: Props = $props();

  let side = $state<Side>('above');
  let turn = $state({ yaw: -35, tilt: 25 });
  let width = $state(700);
  let height = $state(420);
  const seen = $derived(seenOf(view));
  const frame = $derived(new FrameView(side, turn, width, height, seen));
  const pulled = $derived(view.arrows.filter((a) => a.certain));
  const planned = (name: string) => view.points.find((p) => p.name === name)?.planned;

  const chosen = $derived(survey.tab === 'state' && survey.choosing ? survey.choosing.points : survey.points);
  const numbers = (name: string) =>
    chosen
      .flatMap((n, i) => (n === name ? [survey.choosing?.what === 'datum' ? JIG.datumMarks[i]! : `${i + 1}`] : []))
      .join(' ');

  const AXES: Readonly<Record<Side, readonly number[]>> = {
    above: [0, 1],
    side: [0, 2],
    behind: [1, 2],
    wire: [0, 1, 2],
  };
  /** How far a point that is out is off, along that axis of the view where it is most. */
  function off(name: string): string {
    const found = view.pickups.find((p) => p.point === name);
    if (found?.verdict !== 'out' || !found.off) return '';
    const most = [...AXES[side]].sort((a, b) => Math.abs(found.off![b]!) - Math.abs(found.off![a]!))[0]!;
    return found.say_off[most] ?? '';
  }

  let held = false;
  const tilted = (by: number) => Math.min(Math.max(turn.tilt + by, -10), 90);
  function drag(event: PointerEvent): void {
    if (held && side === 'wire') turn = { yaw: turn.yaw - event.movementX * 0.5, tilt: tilted(event.movementY * 0.4) };
  }
  function key(event: KeyboardEvent): void {
    const by = { ArrowLeft: [6, 0], ArrowRight: [-6, 0], ArrowUp: [0, 5], ArrowDown: [0, -5] }[event.key];
    if (!by || side !== 'wire') return;
    event.preventDefault();
    turn = { yaw: turn.yaw + by[0]!, tilt: tilted(by[1]!) };
  }
</script>

<div class="drawing" data-drawing bind:clientWidth={width} bind:clientHeight={height}>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions (arrow keys turn the frame) -->
  <svg
    {width}
    {height}
    role="img"
    aria-label="{JIG.title}, {JIG.views[side]}"
    tabindex={side === 'wire' ? 0 : undefined}
    onkeydown={key}
    onpointerdown={() => (held = true)}
    onpointerup={() => (held = false)}
    onpointerleave={() => (held = false)}
    onpointermove={drag}
  >
    <rect {width} {height} />
    <FrameLines {frame} {view} {seen} chosen={survey.points} typed={survey.preview?.said ?? survey.typed} />
    {#each seen as point (point.name)}
      <FramePoint
        {frame}
        {point}
        lit={chosen.includes(point.name) || survey.lit === point.name}
        number={survey.tab === 'state' && survey.choosing ? numbers(point.name) : ''}
        loose={!point.determined && view.readings.some((r) => r.counts && r.points.includes(point.name))}
        off={off(point.name)}
        onpick={() => survey.pick(point.name)}
      />
    {/each}
    {#each pulled as one, i (i)}
      {@const from = planned(one.point) as P3 | undefined}
      {#if from}<path d={arrow(frame.at(from), frame.moved(from, one.by as unknown as P3))} />{/if}
    {/each}
    <FrameWords {side} {width} {height} pulled={view.arrows.length > 0} />
  </svg>
  <div class="sides">
    <Pressed label={JIG.title} options={JIG.views} value={side} onpick={(s) => (side = s)} onpaper />
  </div>
</div>

<style>
  .drawing {
    position: relative;
    min-height: 280px;
    min-width: 0;
    border-radius: var(--round);
    overflow: hidden;
    background: var(--layout);
    touch-action: pan-y;
  }
  svg {
    position: absolute;
    inset: 0;
    display: block;
  }
  rect {
    fill: var(--layout);
  }
  path {
    stroke: var(--built);
    stroke-width: 2.4;
    fill: none;
  }
  .sides {
    position: absolute;
    left: 10px;
    top: 10px;
  }
</style>
