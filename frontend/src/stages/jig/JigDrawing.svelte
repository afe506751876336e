<script lang="ts">
  // The frame: points as planned (thin rings) and as measured (dots with their doubt), arrows of what is off or was pulled; from three sides, or turned by hand.
  import type { JigView } from '$lib/api/client';
  import type { Survey } from './survey.svelte';
  import { JIG, MAGNIFIED } from './texts';

  type Props = { survey: Survey; view: JigView };
  let { survey, view }: Props = $props();

  type Side = keyof typeof JIG.views;
  let side = $state<Side>('above');
  let turn = $state({ yaw: -35, tilt: 25 });
  let width = $state(700);
  let height = $state(420);
  type P3 = readonly [number, number, number];

  // Screen axes in the axes of the car: right and up.
  const axes = $derived.by((): [P3, P3] => {
    if (side === 'above')
      return [
        [-1, 0, 0],
        [0, -1, 0],
      ]; // nose to the left, as from its left side
    if (side === 'side')
      return [
        [-1, 0, 0],
        [0, 0, 1],
      ];
    if (side === 'behind')
      return [
        [0, -1, 0],
        [0, 0, 1],
      ];
    const [a, b] = [(turn.yaw * Math.PI) / 180, (turn.tilt * Math.PI) / 180];
    return [
      [Math.sin(a), -Math.cos(a), 0],
      [Math.cos(a) * Math.sin(b), Math.sin(a) * Math.sin(b), Math.cos(b)],
    ];
  });
  // What belongs to the frame: pickup points, whatever was read, and points of no corner.
  const seen = $derived(
    view.points.filter(
      (p) =>
        p.place ||
        view.pickups.some((q) => q.point === p.name) ||
        view.readings.some((r) => r.points.includes(p.name)) ||
        !/^(LF|RF|LR|RR|front|rear)\./.test(p.name),
    ),
  );
  const dot = (a: P3, b: P3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
  const flat = (p: P3) => [dot(p, axes[0]), dot(p, axes[1])] as const;
  const box = $derived.by(() => {
    const all = seen.map((p) => flat(p.planned));
    const [us, vs] = [all.map((a) => a[0]), all.map((a) => a[1])];
    const [u0, u1, v0, v1] = [Math.min(...us), Math.max(...us), Math.min(...vs), Math.max(...vs)];
    return {
      scale: Math.min((width - 90) / Math.max(u1 - u0, 1), (height - 170) / Math.max(v1 - v0, 1)),
      u: (u0 + u1) / 2,
      v: (v0 + v1) / 2,
    };
  });
  const at = $derived((p: P3) => {
    const [u, v] = flat(p);
    return { x: width / 2 + (u - box.u) * box.scale, y: height / 2 + 30 - (v - box.v) * box.scale };
  });
  const off = (p: JigView['points'][number]) => p.place!.map((v, i) => v - p.planned[i]!) as unknown as P3;
  const moved = $derived((p: P3, by: P3) =>
    at([p[0] + by[0] * MAGNIFIED, p[1] + by[1] * MAGNIFIED, p[2] + by[2] * MAGNIFIED]),
  );
  const which = $derived({ above: 0, behind: 1, side: 2, wire: -1 }[side]);
  const place = (name: string) => view.points.find((p) => p.name === name);
  // The shape of the frame: the axis of every arm, and each point with its twin on the other side.
  const shape = $derived(
    seen.flatMap((p) => {
      const swap: Record<string, string> = { LF: 'RF', LR: 'RR', left: 'right' };
      const others = [
        p.name.endsWith('.front') ? p.name.replace(/\.front$/, '.rear') : '',
        p.name
          .split('.')
          .map((w) => swap[w] ?? w)
          .join('.'),
      ];
      return others
        .filter((n) => n && n !== p.name)
        .flatMap((n) => {
          const q = seen.find((o) => o.name === n);
          return q ? [[p, q] as const] : [];
        });
    }),
  );
  const wrong = $derived(view.readings.filter((r) => r.wrong));

  let held = false;
  function drag(event: PointerEvent): void {
    if (!held || side !== 'wire') return;
    turn = {
      yaw: turn.yaw - event.movementX * 0.5,
      tilt: Math.min(Math.max(turn.tilt + event.movementY * 0.4, -10), 90),
    };
  }
  function key(event: KeyboardEvent): void {
    const by = { ArrowLeft: [6, 0], ArrowRight: [-6, 0], ArrowUp: [0, 5], ArrowDown: [0, -5] }[event.key];
    if (!by || side !== 'wire') return;
    event.preventDefault();
    turn = { yaw: turn.yaw + by[0]!, tilt: Math.min(Math.max(turn.tilt + by[1]!, -10), 90) };
  }
  const head = (a: { x: number; y: number }, b: { x: number; y: number }) => {
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const size = Math.hypot(dx, dy) || 1;
    const [ux, uy] = [dx / size, dy / size];
    return `M${b.x - ux * 9 - uy * 4} ${b.y - uy * 9 + ux * 4}L${b.x} ${b.y}L${b.x - ux * 9 + uy * 4} ${b.y - uy * 9 - ux * 4}`;
  };
</script>

<div class="drawing" bind:clientWidth={width} bind:clientHeight={height}>
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
    {#each shape as [p, q] (p.name + q.name)}<path
        class="shape"
        d="M{at(p.planned).x} {at(p.planned).y}L{at(q.planned).x} {at(q.planned).y}"
      />{/each}
    {#each view.readings.filter((r) => r.counts && r.points.length === 2) as r (r.number)}
      {@const a = place(r.points[0]!)}
      {@const b = place(r.points[1]!)}
      {#if a && b}<path
          class="read"
          d="M{at(a.planned).x} {at(a.planned).y}L{at(b.planned).x} {at(b.planned).y}"
        />{/if}
    {/each}
    {#each wrong as r (r.number)}
      {@const a = place(r.points[0]!)}
      {@const b = place(r.points[1] ?? r.points[0]!)}
      {#if a && b}<path
          class="wrong"
          d="M{at(a.planned).x} {at(a.planned).y}L{at(b.planned).x} {at(b.planned).y}"
        />{/if}
    {/each}
    {#if survey.points.length >= 2}
      {@const chosen = survey.points.map(place)}
      {#each [[0, 1], [2, 3]] as [i, j] (i)}
        {#if chosen[i!] && chosen[j!]}<path
            class="now"
            d="M{at(chosen[i!]!.planned).x} {at(chosen[i!]!.planned).y}L{at(chosen[j!]!.planned).x} {at(
              chosen[j!]!.planned,
            ).y}"
          />{/if}
      {/each}
    {/if}
    {#each seen as p (p.name)}
      {@const a = at(p.planned)}
      {@const lit = survey.points.includes(p.name) || survey.lit === p.name}
      {#if p.place && p.expanded}
        {@const b = moved(p.planned, off(p))}
        {@const e = which >= 0 ? p.ellipse[which] : undefined}
        {#if Math.hypot(b.x - a.x, b.y - a.y) > 3}<path class="arrow" d="M{a.x} {a.y}L{b.x} {b.y}{head(a, b)}" />{/if}
        {#if e}<ellipse
            class="doubt"
            cx={b.x}
            cy={b.y}
            rx={Math.max(e[0]! * MAGNIFIED * box.scale, 1)}
            ry={Math.max(e[1]! * MAGNIFIED * box.scale, 1)}
            transform="rotate({side === 'behind' ? e[2]! : side === 'above' ? -e[2]! : e[2]!} {b.x} {b.y})"
          />{/if}
      {/if}
      <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions (the lists beside it are the keyboard's way) -->
      <g
        class="point"
        data-lit={lit || undefined}
        data-loose={(!p.determined && survey.view?.readings.some((r) => r.counts && r.points.includes(p.name))) ||
          undefined}
        onclick={() => survey.pick(p.name)}
      >
        <circle class="touch" cx={a.x} cy={a.y} r="15" />
        <circle class={p.determined ? 'got' : 'ring'} cx={a.x} cy={a.y} r={lit ? 7 : 4.5} /><title>{p.say}</title>
      </g>
      {#if lit}<text
          class="name"
          x={a.x}
          y={a.y - 13}
          text-anchor={a.x > width * 0.7 ? 'end' : a.x < width * 0.3 ? 'start' : 'middle'}>{p.say}</text
        >{/if}
    {/each}
    {#each view.arrows.filter((a) => a.certain) as arrow (arrow.point)}
      {@const p = place(arrow.point)}
      {#if p}
        {@const a = at(p.planned)}
        {@const b = moved(p.planned, arrow.by as unknown as P3)}
        <path class="pull" d="M{a.x} {a.y}L{b.x} {b.y}{head(a, b)}" />
      {/if}
    {/each}
    {#if side === 'above'}<text x={width / 2} y="80" text-anchor="middle">{JIG.sides.right}</text><text
        x={width / 2}
        y={height - 36}
        text-anchor="middle">{JIG.sides.left}</text
      >{/if}
    <text x="14" y={height - 14}>{JIG.scale(MAGNIFIED)}{side === 'wire' ? ` ${JIG.turn}` : ''}</text>
    <g class="legend">
      <circle class="ring" cx={width - 150} cy="20" r="4.5" /><text x={width - 138} y="25">{JIG.legend.planned}</text>
      <circle class="got" cx={width - 150} cy="40" r="4.5" /><text x={width - 138} y="45">{JIG.legend.found}</text>
      {#if view.arrows.length}<path class="pull" d="M{width - 158} 60h16" /><text x={width - 138} y="65"
          >{JIG.legend.moved}</text
        >{/if}
    </g>
  </svg>
  <div class="sides" role="group" aria-label={JIG.title}>
    {#each Object.entries(JIG.views) as [s, name] (s)}<button
        type="button"
        class="button"
        aria-pressed={side === s}
        onclick={() => (side = s as Side)}>{name}</button
      >{/each}
  </div>
</div>

<style>
  .drawing {
    position: relative;
    min-height: 300px;
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
  text {
    fill: var(--scribe-dim);
    font-size: 14px;
  }
  .shape {
    stroke: var(--scribe-dim);
    stroke-opacity: 0.55;
    stroke-width: 1.2;
  }
  .read {
    stroke: var(--scribe-dim);
    stroke-opacity: 0.28;
    stroke-width: 1;
  }
  .wrong {
    stroke: #ff9a7a;
    stroke-width: 3;
    stroke-dasharray: 8 5;
  }
  .now {
    stroke: var(--paint-light);
    stroke-width: 2.5;
  }
  .ring {
    fill: var(--layout);
    stroke: var(--scribe);
    stroke-width: 1.4;
  }
  .got {
    fill: var(--scribe);
    stroke: var(--scribe);
  }
  .touch {
    fill: transparent;
  }
  .point {
    cursor: pointer;
  }
  .point[data-lit] circle:not(.touch) {
    fill: var(--paint-light);
    stroke: var(--paint-light);
  }
  .point[data-loose] circle:not(.touch) {
    stroke-dasharray: 3 2;
    fill: var(--layout);
  }
  .name {
    fill: var(--paint-light);
    font-weight: 700;
    stroke: var(--layout);
    stroke-width: 5;
    paint-order: stroke;
  }
  .arrow {
    stroke: var(--scribe);
    stroke-width: 1.8;
    fill: none;
  }
  .doubt {
    fill: none;
    stroke: var(--scribe-dim);
    stroke-width: 1.2;
  }
  .pull {
    stroke: #8fe3b0;
    stroke-width: 2.4;
    fill: none;
  }
  .sides {
    position: absolute;
    left: 10px;
    top: 10px;
    display: flex;
  }
  .sides .button {
    border-radius: 0;
    margin-right: -1px;
    font-weight: 400;
    background: var(--layout-deep);
    color: var(--scribe);
    border-color: var(--scribe-dim);
  }
  .sides [aria-pressed='true'] {
    background: var(--scribe);
    color: var(--layout);
    font-weight: 700;
  }
</style>
