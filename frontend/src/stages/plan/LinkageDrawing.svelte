<script lang="ts">
  // The points of one end to scale: from behind on the left, from above on the right; the point in hand is lit.
  import type { Layout, Linkage } from '$lib/api/client';
  import type { Draft } from './draft';

  type Props = {
    draft: Draft;
    layout: Layout;
    linkage: Linkage;
    prefix: string;
    lit: string;
    label: string;
    onpick: (name: string) => void;
  };
  let { draft, layout, linkage, prefix, lit, label, onpick }: Props = $props();

  const W = 600;
  const H = 340;
  type Spot = { name: string; x: number; y: number; z: number };
  const spots = $derived.by(() => {
    const own = Object.entries(draft.points)
      .filter(([n, p]) => n.startsWith(`${prefix}.`) && p.every((v) => v !== null))
      .map(([n, p]) => ({ name: n.slice(prefix.length + 1), x: p[0]!, y: p[1]!, z: p[2]! }));
    if (!layout.axle) return own;
    const swap = (n: string) =>
      n
        .split('.')
        .map((w) => (w === 'left' ? 'right' : w === 'right' ? 'left' : w))
        .join('.');
    const named = new Set(own.map((s) => s.name));
    return [
      ...own,
      ...own
        .filter((s) => swap(s.name) !== s.name && !named.has(swap(s.name)))
        .map((s) => ({ ...s, name: swap(s.name), y: -s.y })),
    ];
  });
  const WIDE = 190; // mm; a tyre as drawn, its width is in no plan
  const parts = $derived([
    ...(linkage.springs ?? []).map((s) => [s.ends[0].point, s.ends[1].point] as const),
    ...(linkage.rocker
      ? ([
          [linkage.rocker.rod.point, linkage.rocker.push],
          [linkage.rocker.push, linkage.rocker.first],
          ...(linkage.springs ?? []).map((s) => [s.ends[0].point, linkage.rocker!.first] as const),
        ] as const)
      : []),
    ...(linkage.bar
      ? ([
          [linkage.bar.link.point, linkage.bar.arm],
          [linkage.bar.arm, linkage.bar.second],
          [linkage.bar.first, linkage.bar.second],
        ] as const)
      : []),
    ...(linkage.shaft ? ([[linkage.shaft.inner, linkage.shaft.outer]] as const) : []),
  ]);
  const find = (name: string): Spot | undefined => spots.find((s) => s.name === name);
  // Both views share one scale. From behind: left of the car on the left. From above: nose up, left on the left.
  const views = $derived.by(() => {
    if (!spots.length) return [];
    const range = (of: (s: Spot) => number) => [Math.min(...spots.map(of)), Math.max(...spots.map(of))] as const;
    const [y0, y1] = range((s) => s.y);
    const r = linkage.loaded_radius;
    const [z0, z1] = [Math.min(range((s) => s.z)[0], 0), range((s) => s.z)[1]];
    const [x0, x1] = [
      Math.min(range((s) => s.x)[0], ...spots.filter((s) => s.name.endsWith('wheel')).map((s) => s.x - r)),
      Math.max(range((s) => s.x)[1], ...spots.filter((s) => s.name.endsWith('wheel')).map((s) => s.x + r)),
    ];
    const scale = Math.min((W / 2 - 50) / Math.max(y1 - y0 + WIDE, 1), (H - 70) / Math.max(z1 - z0, x1 - x0, 1));
    const place = (left: number, a: number, b: number, middleA: number, middleB: number) => ({
      u: left + W / 4 - (a - middleA) * scale,
      v: H / 2 + 8 - (b - middleB) * scale,
    });
    return [
      { left: 0, title: 'from behind', scale, at: (s: Spot) => place(0, s.y, s.z, (y0 + y1) / 2, (z0 + z1) / 2) },
      {
        left: W / 2,
        title: 'from above, nose up',
        scale,
        at: (s: Spot) => place(W / 2, s.y, s.x, (y0 + y1) / 2, (x0 + x1) / 2),
      },
    ];
  });
</script>

<svg viewBox="0 0 {W} {H}" role="img" aria-label={label}>
  <rect width={W} height={H} rx="3" />
  {#if !spots.length}<text x={W / 2} y={H / 2} text-anchor="middle">No point is given yet.</text>{/if}
  {#each views as view (view.title)}
    <text x={view.left + 14} y="22">{view.title}</text>
    {#each spots.filter((s) => s.name.endsWith('wheel')) as spot (spot.name)}
      {@const p = view.at(spot)}
      <rect
        class="tyre"
        x={p.u - (WIDE / 2) * view.scale}
        y={p.v - linkage.loaded_radius * view.scale}
        width={WIDE * view.scale}
        height={2 * linkage.loaded_radius * view.scale}
        rx="4"
      />
      {#if !layout.axle}{#each new Set(layout.lines.map((l) => l.outer)) as outer (outer)}{@const o =
            find(outer)}{#if o}<path class="upright" d="M{p.u} {p.v}L{view.at(o).u} {view.at(o).v}" />{/if}{/each}{/if}
    {/each}
    {#each parts as [from, to], i (i)}
      {@const a = find(from)}
      {@const b = find(to)}
      {#if a && b}<path class="part-line" d="M{view.at(a).u} {view.at(a).v}L{view.at(b).u} {view.at(b).v}" />{/if}
    {/each}
    {#each layout.lines as line (line.name)}
      {@const a = find(line.inner)}
      {@const b = find(line.outer)}
      {#if a && b}<path class="link" d="M{view.at(a).u} {view.at(a).v}L{view.at(b).u} {view.at(b).v}" />{/if}
    {/each}
    {#each spots as spot (spot.name)}
      {@const p = view.at(spot)}
      <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions (the table beside it is the keyboard's way) -->
      <circle
        cx={p.u}
        cy={p.v}
        r={spot.name === lit ? 7 : spot.name.endsWith('wheel') ? 6 : 3.5}
        data-lit={spot.name === lit || undefined}
        data-wheel={spot.name.endsWith('wheel') || undefined}
        onclick={() => onpick(spot.name)}><title>{spot.name.replaceAll('.', ' ')}</title></circle
      >
      {#if spot.name === lit}<text
          class="lit"
          x={p.u}
          y={p.v - 12}
          text-anchor={p.u > view.left + W / 3 ? 'end' : 'start'}>{spot.name.replaceAll('.', ' ')}</text
        >{/if}
    {/each}
  {/each}
  <path class="part" d="M{W / 2} 12V{H - 12}" />
</svg>

<style>
  svg {
    width: 100%;
    height: auto;
    display: block;
  }
  rect {
    fill: var(--layout);
  }
  .tyre {
    fill: none;
    stroke: var(--scribe-dim);
    stroke-width: 1.4;
  }
  .upright {
    stroke: var(--scribe-dim);
    stroke-width: 1;
    fill: none;
  }
  .part-line {
    stroke: var(--scribe-dim);
    stroke-width: 1.6;
    fill: none;
    stroke-dasharray: 6 3;
  }
  text {
    fill: var(--scribe-dim);
    font-size: 14px;
  }
  .link {
    stroke: var(--scribe);
    stroke-width: 1.8;
    fill: none;
  }
  .part {
    stroke: var(--scribe-dim);
    stroke-dasharray: 14 4 3 4;
  }
  circle {
    fill: var(--layout);
    stroke: var(--scribe);
    stroke-width: 1.6;
    cursor: pointer;
  }
  circle[data-wheel] {
    stroke-dasharray: 3 2;
  }
  circle[data-lit] {
    fill: var(--paint-light);
    stroke: var(--paint-light);
  }
  .lit {
    fill: var(--paint-light);
    font-weight: 700;
  }
</style>
