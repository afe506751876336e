<script lang="ts">
  // One point of the frame: a ring as planned, a dot where it was found, and how far off it is with its doubt.
  import { arrow, ELLIPSE, type FrameView, offOf, type Point } from './frame-view';
  import { MAGNIFIED } from './texts';

  type Props = {
    frame: FrameView;
    point: Point;
    lit: boolean;
    loose: boolean;
    number?: string;
    off?: string;
    onpick: () => void;
  };
  let { frame, point: p, lit, loose, number = '', off = '', onpick }: Props = $props();

  let near = $state(false);
  const a = $derived(frame.at(p.planned));
  const b = $derived(p.place && p.expanded ? frame.moved(p.planned, offOf(p)) : null);
  const doubt = $derived(ELLIPSE[frame.side] >= 0 ? p.ellipse[ELLIPSE[frame.side]] : undefined);
  const radius = (mm: number) => Math.max(mm * MAGNIFIED * frame.scale, 1);
  const anchor = $derived(a.x > frame.width * 0.7 ? 'end' : a.x < frame.width * 0.3 ? 'start' : 'middle');
</script>

{#if b}
  {#if Math.hypot(b.x - a.x, b.y - a.y) > 3}<path d={arrow(a, b)} />{/if}
  {#if off && !lit}<text
      data-off
      x={b.x + (b.x < a.x ? -6 : 6)}
      y={b.y + (b.y < a.y ? -6 : 16)}
      text-anchor={b.x < a.x ? 'end' : 'start'}>{off}</text
    >{/if}
  {#if doubt}<ellipse
      cx={b.x}
      cy={b.y}
      rx={radius(doubt[0]!)}
      ry={radius(doubt[1]!)}
      transform="rotate({frame.side === 'above' ? -doubt[2]! : doubt[2]!} {b.x} {b.y})"
    />{/if}
{/if}
<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions (the lists beside it are the keyboard's way) -->
<g
  data-lit={lit || undefined}
  data-loose={loose || undefined}
  onclick={onpick}
  onpointerenter={() => (near = true)}
  onpointerleave={() => (near = false)}
>
  <circle class="touch" cx={a.x} cy={a.y} r="22" />
  <circle class={p.determined ? 'got' : 'ring'} cx={a.x} cy={a.y} r={lit ? 7 : 4.5} /><title>{p.say}</title>
</g>
{#if lit || near || number}<text data-near={!lit || undefined} x={a.x} y={a.y - 13} text-anchor={anchor}
    >{number} {p.say}</text
  >{/if}

<style>
  g {
    cursor: pointer;
  }
  .touch {
    fill: transparent;
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
  [data-lit] circle:not(.touch) {
    fill: var(--paint-light);
    stroke: var(--paint-light);
  }
  [data-loose] circle:not(.touch) {
    stroke-dasharray: 3 2;
    fill: var(--layout);
  }
  text {
    fill: var(--paint-light);
    font-size: 14px;
    font-weight: 700;
    stroke: var(--layout);
    stroke-width: 5;
    paint-order: stroke;
  }
  path {
    stroke: var(--scribe);
    stroke-width: 1.8;
    fill: none;
  }
  ellipse {
    fill: var(--scribe-dim);
    fill-opacity: 0.22;
    stroke: none;
    filter: blur(1.5px);
    pointer-events: none;
  }
  [data-off] {
    fill: var(--scribe);
    font-family: 'Figure', sans-serif;
    font-weight: 400;
    pointer-events: none;
  }
  [data-near] {
    fill: var(--scribe);
    pointer-events: none;
  }
</style>
