<script lang="ts">
  // The drawing of what is read now: the car from above, an axle from behind, a wheel from the side or from above.
  import { MediaQuery } from 'svelte/reactivity';
  import AxleBehind from '$parts/drawing/AxleBehind.svelte';
  import CarAbove from '$parts/drawing/CarAbove.svelte';
  import InsideAbove from '$parts/drawing/InsideAbove.svelte';
  import Joints from '$parts/drawing/Joints.svelte';
  import PlumbBehind from '$parts/drawing/PlumbBehind.svelte';
  import SideView from '$parts/drawing/SideView.svelte';
  import SweepAbove from '$parts/drawing/SweepAbove.svelte';
  import WheelAbove from '$parts/drawing/WheelAbove.svelte';
  import { QUANTITIES } from '$lib/kinds';
  import TurnAt from './TurnAt.svelte';
  import type { Corner } from '$lib/api/client';
  import type { RoundDesk } from '$parts/tape/round.svelte';
  import type { LiftLine } from './lift';

  const narrow = new MediaQuery('max-width: 700px');
  type Props = { desk: RoundDesk; stops: { corner: Corner; lines: LiftLine[] }[] };
  let { desk, stops }: Props = $props();
  const { view, ask } = $derived(desk);
  const walk = $derived(
    stops.map(({ corner, lines }) => {
      const now = lines.find((l) => l.adjuster === desk.adjuster?.id && !l.done);
      return { corner, done: lines.every((l) => l.done), say: now ? `${now.size} ${now.way}` : '' };
    }),
  );
  const scene = $derived(desk.turning ? null : QUANTITIES[ask.quantity].scene);
  const typed = $derived(desk.preview?.said ?? desk.typed);
</script>

{#if desk.turning && desk.adjuster && (narrow.current || !stops.length)}<TurnAt {desk} />
{:else if desk.turning || ask.drawing === 'above'}
  <CarAbove
    {view}
    lit={desk.corner}
    pads={scene === 'level' || scene === 'stepped'}
    stepped={scene === 'stepped'}
    stops={desk.turning ? walk : []}
  />
{:else if ask.drawing === 'behind'}<AxleBehind {view} corner={ask.corner} {typed} />
{:else if ask.drawing === 'side'}<SideView {view} corner={ask.corner} {typed} />
{:else if ask.drawing === 'plumb'}<PlumbBehind {view} corner={ask.corner} quantity={ask.quantity} {typed} />
{:else if ask.drawing === 'sweep'}<SweepAbove {view} corner={ask.corner} quantity={ask.quantity} {typed} />
{:else if ask.drawing === 'joints' || ask.drawing === 'joints_ahead'}
  <Joints {view} corner={ask.corner} quantity={ask.quantity} ahead={ask.drawing === 'joints_ahead'} {typed} />
{:else if ask.drawing === 'inside'}<InsideAbove {view} corner={ask.corner} quantity={ask.quantity} {typed} />
{:else}<WheelAbove {view} corner={ask.corner} quantity={ask.quantity} {typed} />{/if}
