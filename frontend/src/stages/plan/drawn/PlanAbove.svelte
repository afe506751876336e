<script lang="ts">
  // The car that is being planned, from above and one wheel from the side, to scale from its own figures; what is not given is broken, at a guess.
  import Plate from '$parts/drawing/Plate.svelte';
  import { CORNERS, isFront, isLeft } from '$lib/marks';
  import { DRAWN } from '../texts';
  import PlanColumn from './PlanColumn.svelte';
  import PlanPlace from './PlanPlace.svelte';
  import PlanSpots from './PlanSpots.svelte';
  import type { PlanDesk } from './plan-desk.svelte';

  type Props = { desk: PlanDesk };
  let { desk }: Props = $props();

  const { draft } = $derived(desk.sheet);
  const wanted = $derived(desk.chapter === 'aims' || desk.chapter === 'build');
  const GUESS = { wheelbase: 2400, track: 1400, rim: 380, tyre: 600 }; // mm; drawn with, used for nothing
  const base = $derived(draft.wheelbase ?? GUESS.wheelbase);
  const end = (e: 'front' | 'rear') => ({
    track: draft[e].track ?? draft.front.track ?? GUESS.track,
    rim: draft[e].rim_flange_diameter ?? draft.front.rim_flange_diameter ?? GUESS.rim,
    tyre: draft[e].tyre_diameter ?? draft.front.tyre_diameter ?? GUESS.tyre,
  });
  const ends = $derived({ front: end('front'), rear: end('rear') });
  const wide = $derived(Math.max(ends.front.track, ends.rear.track));
  const column = $derived(
    desk.chapter === 'dimensions' ? [] : desk.asks.filter((a) => a.group === desk.ask.group && !wanted),
  );
  const tall = $derived(base + ends.front.tyre * 1.7);
  // Beside the car there is room for figures that have no place of their own.
  const beside = $derived(column.length ? tall * 0.5 : 0);
  const box = $derived({ x: -wide / 2 - 420 - beside, y: -ends.front.tyre * 0.85, w: wide + 840 + beside, h: tall });
  const wheels = $derived(
    CORNERS.map((c) => {
      const own = ends[isFront(c) ? 'front' : 'rear'];
      return {
        corner: c,
        x: ((isLeft(c) ? -1 : 1) * own.track) / 2,
        y: isFront(c) ? 0 : base,
        tall: own.tyre,
        rim: own.rim,
        known: draft[isFront(c) ? 'front' : 'rear'].tyre_diameter !== null,
      };
    }),
  );
  const places = $derived(wanted ? desk.asks : []);
  /** Where a place may be until it is said: over its wheel, or in the middle of the car. */
  const guess = (group: string) => {
    const corner = CORNERS.find((c) => group.split('.').includes(c));
    const wheel = wheels.find((w) => w.corner === corner);
    return wheel ? { x: wheel.x * 0.6, y: wheel.y } : { x: 0, y: base / 2 };
  };
  /** Where on the drawing figures are written: those of an axle to its right, of a left wheel to its left, of the car as a whole between the axles. */
  const spot = (path: string) => {
    const corner = /[LR][FR]/.exec(path)?.[0] ?? '';
    const right = path.includes('+') || corner.startsWith('R');
    return { right, y: !corner ? base / 2 : corner[1] === 'R' ? base : 0 };
  };
  const grouped = $derived.by(() => {
    const by: Record<string, typeof places> = {};
    for (const a of places) (by[Object.values(spot(a.path)).join('/')] ??= []).push(a);
    return Object.values(by).map((rows) => ({ ...spot(rows[0]!.path), rows }));
  });
</script>

<Plate label={DRAWN.above} {box} note={DRAWN.guess} touched>
  {#snippet children(px)}
    <path class="axis" d="M0 {box.y + 10 * px}V{box.y + box.h - 10 * px}" />
    {#each wheels as w (w.corner)}
      <rect
        class={w.known ? 'line' : 'thin'}
        stroke-dasharray={w.known ? undefined : '7 6'}
        x={w.x - w.rim * 0.22}
        y={w.y - w.tall / 2}
        width={w.rim * 0.44}
        height={w.tall}
        rx={w.rim * 0.1}
      />
      <path class="dim" d="M{w.x} {w.y - w.rim / 2}V{w.y + w.rim / 2}" />
    {/each}
    {#if desk.chapter === 'dimensions'}
      {@const out = wide / 2 + 24 * px + ends.front.rim * 0.22}
      <PlanPlace {desk} {px} path="wheelbase" x1={-out - 70 * px} y1={base} x2={-out - 70 * px} y2={0} />
      {#each ['front', 'rear'] as const as e (e)}
        {@const y = e === 'front' ? 0 : base}
        <PlanPlace {desk} {px} path="{e}.track" x1={-ends[e].track / 2} y1={y} x2={ends[e].track / 2} y2={y} />
        <PlanPlace
          {desk}
          {px}
          path="{e}.tyre_diameter"
          x1={out}
          y1={y - ends[e].tyre / 2}
          x2={out}
          y2={y + ends[e].tyre / 2}
        />
        <PlanPlace
          {desk}
          {px}
          path="{e}.rim_flange_diameter"
          x1={-out}
          y1={y - ends[e].rim / 2}
          x2={-out}
          y2={y + ends[e].rim / 2}
          before
        />
      {/each}
    {:else if !wanted}
      <PlanSpots {desk} {px} {guess} />
      <PlanColumn
        {desk}
        {px}
        asks={column}
        step={Math.min(46, (tall / px - 70) / column.length)}
        x={box.x + 20 * px}
        y={box.y + 40 * px}
      />
    {:else}
      {#each grouped as group, g (g)}
        {#each group.rows as ask, i (ask.path)}
          {@const row = Math.floor(i / 2) - group.rows.length / 4 + 0.5}
          <PlanPlace
            {desk}
            {px}
            path={ask.path}
            at={{
              x: (group.right ? wide / 2 + 150 * px : -wide / 2 - 96 * px) + (i % 2 ? 5 : -5) * px,
              y: group.y + row * 28 * px,
              after: i % 2 === 1,
            }}
          />
        {/each}
      {/each}
    {/if}
  {/snippet}
</Plate>
