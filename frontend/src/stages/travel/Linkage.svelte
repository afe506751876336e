<script lang="ts">
  // The linkage of an end as it moves: drag a wheel, or use the arrow keys. Planned thin, as built bold; what comes near its limit glows.
  import Plate from '$parts/drawing/Plate.svelte';
  import type { Bench } from './bench.svelte';
  import LinkageAt from './LinkageAt.svelte';
  import { boxOf, handlesOf, nearest, rowNear, wheelsAt } from './moving';
  import { TRAVEL } from './texts';

  type Props = { bench: Bench };
  let { bench }: Props = $props();

  $effect(() => {
    void bench.planned;
    void bench.moved;
    void bench.askMoving();
  });
  const held = $derived(bench.moving);
  const study = $derived(bench.moved ?? bench.built ?? bench.planned);
  const near = $derived(nearest(study, bench.row));
  const drive = $derived(bench.planned?.drive ?? []);
  const box = $derived(held ? boxOf(held.planned, held.over) : { x: -800, y: -600, w: 1600, h: 700 });
  const note = $derived(
    near ? TRAVEL.nearest(near.what, Math.max(0, Math.round(near.left * 100)), near.left < 0) : TRAVEL.noLimit,
  );
  const handles = $derived(held ? handlesOf(held.planned, drive.length, held.over) : []);
  let grip: { wheel: number; dv: number; du: number } | null = null;

  /** Where the pointer is, in mm of the drawing. */
  function at(event: PointerEvent): { u: number; v: number } {
    const group = (event.currentTarget as Element).querySelector<SVGGElement>('svg > g')!;
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(group.getScreenCTM()!.inverse());
    return { u: x, v: y };
  }
  function take(event: PointerEvent): void {
    if (!held) return;
    const p = at(event);
    const wheels = wheelsAt(held.planned, bench.row, held.over);
    const far = wheels.map((w) => Math.hypot(w.u - p.u, w.v - p.v));
    const wheel = far.indexOf(Math.min(...far));
    const handle = wheels[wheel]?.handle;
    if (!handle) return;
    grip = { wheel, du: handle.u - p.u, dv: handle.v - p.v };
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
  }
  function drag(event: PointerEvent): void {
    if (!grip || !held) return;
    const p = at(event);
    bench.row = rowNear(handles, grip.wheel, held.over === 'steer' ? p.u + grip.du : p.v + grip.dv);
  }
  function keydown(event: KeyboardEvent): void {
    const by = { ArrowLeft: -1, ArrowRight: 1, ArrowDown: -1, ArrowUp: 1, Home: -1e6, End: 1e6 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    bench.step(event.shiftKey ? by * 10 : by);
  }
</script>

<div
  tabindex="0"
  role="slider"
  aria-label={TRAVEL.linkage}
  aria-valuemin={drive[0]}
  aria-valuemax={drive.at(-1)}
  aria-valuenow={drive[bench.row]}
  onkeydown={keydown}
  onpointerdown={take}
  onpointermove={drag}
  onpointerup={() => (grip = null)}
  onpointercancel={() => (grip = null)}
>
  <Plate label={TRAVEL.linkage} {box} {note}>
    {#snippet children(px)}
      {#if held}
        {#if held.over !== 'steer'}<path class="axis" d="M{box.x} 0H{box.x + box.w}" />{/if}
        <LinkageAt
          bodies={held.planned}
          study={held.built || held.moved ? null : study}
          row={bench.row}
          over={held.over}
          look="planned"
          {px}
        />
        {#if held.built}<LinkageAt
            bodies={held.built}
            study={held.moved ? null : study}
            row={bench.row}
            over={held.over}
            look="built"
            {px}
          />{/if}
        {#if held.moved}<LinkageAt
            bodies={held.moved}
            {study}
            row={bench.row}
            over={held.over}
            look="moved"
            {px}
          />{/if}
      {/if}
    {/snippet}
  </Plate>
</div>

<style>
  div {
    display: grid;
    min-height: 0;
    min-width: 0;
    cursor: grab;
    touch-action: none;
  }
  div:active {
    cursor: grabbing;
  }
  @media (max-width: 1000px) {
    div {
      min-height: 320px;
    }
  }
</style>
