<script lang="ts">
  // The reading in hand as a tape from pin to pin: its hook on the one, its eye at the other, and the figure that is typed.
  import type { FrameView, Point } from './frame-view';

  type Props = { frame: FrameView; from: Point | undefined; to: Point | undefined; typed: string };
  let { frame, from, to, typed }: Props = $props();
  const ends = $derived(from && to ? ([frame.at(from.planned), frame.at(to.planned)] as const) : null);
  const long = $derived(ends ? Math.hypot(ends[1].x - ends[0].x, ends[1].y - ends[0].y) : 0);
  const angle = $derived(ends ? (Math.atan2(ends[1].y - ends[0].y, ends[1].x - ends[0].x) * 180) / Math.PI : 0);
  const upsideDown = $derived(Math.abs(angle) > 90);
  const TICK = 12; // px
</script>

{#if ends && long > 1}
  <g transform="translate({ends[0].x} {ends[0].y}) rotate({angle})">
    <rect x="0" y="-5" width={long} height="10" rx="1" />
    <path
      class="ticks"
      d={Array.from({ length: Math.floor(long / TICK) }, (_, i) => `M${(i + 1) * TICK} -5v${i % 5 === 4 ? 8 : 4}`).join(
        '',
      )}
    />
    <path class="hook" d="M3 -8H-4V8H3" />
    <circle cx={long} cy="0" r="9" />
  </g>
  {#if typed}
    <text
      class="fig"
      text-anchor="middle"
      transform="translate({(ends[0].x + ends[1].x) / 2} {(ends[0].y + ends[1].y) / 2}) rotate({upsideDown
        ? angle + 180
        : angle})"
      y="-12">{typed}</text
    >
  {/if}
{:else if from}
  {@const at = frame.at(from.planned)}
  <circle cx={at.x} cy={at.y} r="11" />
  {#if typed}<text
      class="fig"
      x={at.x}
      y={at.y + (at.y < frame.height / 2 + 30 ? -40 : 46)}
      text-anchor={at.x > frame.width * 0.8 ? 'end' : at.x < frame.width * 0.2 ? 'start' : 'middle'}>{typed}</text
    >{/if}
{/if}

<style>
  rect {
    fill: var(--tape-top);
    stroke: var(--tape-edge);
  }
  .ticks {
    stroke: var(--tape-tick);
    stroke-width: 1;
  }
  .hook {
    fill: none;
    stroke: var(--paint-light);
    stroke-width: 3;
  }
  circle {
    fill: none;
    stroke: var(--paint-light);
    stroke-width: 2.4;
  }
  text {
    fill: var(--paint-light);
    font-size: 22px;
    stroke: var(--layout);
    stroke-width: 5;
    paint-order: stroke;
  }
</style>
