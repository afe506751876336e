<script lang="ts">
  // A hub on the stands: strings between opposite bolt holes cross in its centre; how high it is, and what that will give.
  import { CORNER_WORDS } from '$lib/marks';
  import Dimension from '$parts/drawing/Dimension.svelte';
  import type { StanceViews, Wheel } from './stance-views';
  import { DRAWN } from './texts';

  type Props = { views: StanceViews; wheel: Wheel; px: number };
  let { views, wheel: w, px }: Props = $props();
  const { corner, quantity, typed } = $derived(views.shown);
  const now = $derived(w.c === corner && quantity === 'hub');
  const [x, y] = $derived(views.along(w.at));
  const out = $derived(views.side(x) * w.r * 0.86);
  const gives = $derived(w.latest ? `: ${w.gives}` : w.wanted ? `, ${DRAWN.toSet}` : '');
</script>

<path class={now ? 'now' : 'dim'} d="M{x - 46} {y - 46}L{x + 46} {y + 46}M{x + 46} {y - 46}L{x - 46} {y + 46}" />
<Dimension x1={x + out} y1={0} x2={x + out} y2={y} {px} {now} />
<path class="dim" d="M{x} {y}H{x + out}" />
<text
  class="fig"
  class:now-word={now}
  style:font-family="Figure"
  font-size={17 * px}
  text-anchor="middle"
  x={x + out}
  y={22 * px}>{now && typed ? typed : w.latest || w.wanted || '…'}</text
>
<text class="dim-word" font-size={14 * px} text-anchor="middle" {x} y={y - w.r - 8 * px}
  >{CORNER_WORDS[w.c]}{gives}</text
>
