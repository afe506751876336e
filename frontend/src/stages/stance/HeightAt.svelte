<script lang="ts">
  // A height of the chassis over the floor: its dimension, its figure, and what it is off.
  import { CORNER_WORDS } from '$lib/marks';
  import Dimension from '$parts/drawing/Dimension.svelte';
  import type { HeightPlace, StanceViews } from './stance-views';

  type Props = { views: StanceViews; place: HeightPlace; px: number };
  let { views, place: p, px }: Props = $props();
  const { onStands } = $derived(views.shown);
  const [x, y] = $derived(views.along(p.at));
  const inward = $derived(-views.side(x));
  const anchor = $derived(inward > 0 ? 'start' : 'end');
</script>

<Dimension x1={x} y1={0} x2={x} y2={y} {px} now={p.lit} />
<text
  class="fig"
  class:now-word={p.lit}
  style:font-family="Figure"
  font-size={(p.lit ? 26 : 20) * px}
  text-anchor={anchor}
  x={x + inward * (onStands ? 10 : 0) * px}
  y={26 * px}>{p.text || '…'}</text
>
<text
  class={p.lit ? 'now-word' : 'dim-word'}
  font-size={14 * px}
  text-anchor={anchor}
  x={x + inward * 4 * px}
  y={44 * px}>{p.off || (onStands ? p.name : CORNER_WORDS[p.c])}</text
>
