<script lang="ts">
  // One end's wheels as they are held, from behind and from above: what is given is drawn whole, what is not broken, at an example's places.
  import { api, type Layout, type Linkage } from '$lib/api/client';
  import { until } from '$lib/api/until';
  import Paper from '$parts/drawing/Paper.svelte';
  import type { End } from '../draft';
  import { prefixOf } from '../linkage-points.svelte';
  import LinkageView from '../LinkageView.svelte';
  import { partsOf, RADIUS, type Spot, spotsOf, viewsOf } from '../linkage-views';
  import { DRAWN, PLAN } from '../texts';
  import PlanColumn from './PlanColumn.svelte';
  import type { PlanDesk } from './plan-desk.svelte';
  import PlanPlace from './PlanPlace.svelte';

  type Props = { desk: PlanDesk; end: End; layout: Layout; linkage: Linkage; lit?: string };
  let { desk, end, layout, linkage, lit = '' }: Props = $props();

  const { draft } = $derived(desk.sheet);
  const prefix = $derived(prefixOf(layout, end));
  let example = $state.raw<Record<string, number[]>>({});
  $effect(() => {
    const [name, of] = [layout.name, end];
    return until(
      () => api.example(name, of),
      (found) => (example = found.points),
    );
  });
  const along = $derived(end === 'front' ? 0 : -(draft.wheelbase ?? 2400));
  const given = $derived(spotsOf(draft.points, prefix, layout.axle));
  /** Places of an example for what is not given yet: drawn with, used for nothing. */
  const guessed = $derived(
    Object.entries(example)
      .filter(([name]) => !given.some((s) => s.name === name))
      .map(([name, [x, y, z]]): Spot => ({ name, x: x! + along, y: y!, z: z!, guessed: true })),
  );
  const spots = $derived([...given, ...guessed]);
  const radius = $derived(linkage.loaded_radius || RADIUS);
  const asks = $derived(desk.asks.filter((a) => a.group === desk.ask.group));
  const place = $derived(asks.length === 3 && asks.every((a) => a.spot));
  // A point is shown from behind and from above; beside other figures the view from behind is enough.
  const held = $derived(/^points\.[^.]+\.(.+)\.\w+$/.exec(desk.ask.path)?.[1] ?? '');
  const now = $derived(spots.find((s) => s.name === (held || lit)));
  const pick = (name: string) => desk.open(`points.${prefix}.${name}.station`);
</script>

<Paper label="{PLAN.axles[end]}, {DRAWN.held}" note={guessed.length ? DRAWN.guess : DRAWN.toScale} touched>
  {#snippet children(w, h)}
    {@const both = viewsOf(spots, radius, w, h - 30)}
    {@const views = place ? both : both.slice(0, 1)}
    <g transform={place ? undefined : `translate(${w / 2} 0)`}>
      {#each views as view, i (view.title)}
        <LinkageView
          {view}
          {spots}
          parts={partsOf(linkage)}
          {layout}
          {radius}
          lit={now?.name ?? ''}
          named={!i}
          onpick={pick}
        />
      {/each}
    </g>
    {#if place && now}
      {@const [behind, above] = [views[0]!, views[1]!]}
      {@const [p, q] = [behind.at(now), above.at(now)]}
      {@const [zero, axle] = [behind.at({ ...now, y: 0, z: 0 }), above.at({ ...now, x: along })]}
      <PlanPlace {desk} px={1} path={asks[0]!.path} x1={q.u + 40} y1={axle.v} x2={q.u + 40} y2={q.v} />
      <PlanPlace
        {desk}
        px={1}
        path={asks[1]!.path}
        x1={Math.min(zero.u, w / 2 - 24)}
        y1={p.v + 34}
        x2={p.u}
        y2={p.v + 34}
      />
      <PlanPlace {desk} px={1} path={asks[2]!.path} x1={p.u - 26} y1={zero.v} x2={p.u - 26} y2={p.v} before />
    {:else}
      <PlanColumn {desk} px={1} {asks} x={24} y={48} step={Math.min(46, (h - 90) / asks.length)} />
    {/if}
  {/snippet}
</Paper>
