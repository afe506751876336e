<script lang="ts">
  // Curves on layout-blue paper, with a reading line that follows the mouse or the arrow keys.
  import { curve, EDGE, ends, type PlotLine, rowAt, scales, tick } from './plot';

  type Props = {
    label: string;
    drive: number[];
    driveName: string;
    unit: string;
    lines: PlotLine[];
    row: number;
    onrow: (row: number) => void;
    onstep: (by: number) => void;
    svg?: SVGSVGElement | undefined;
  };
  let { label, drive, driveName, unit, lines, row, onrow, onstep, svg = $bindable() }: Props = $props();

  let width = $state(600);
  let height = $state(400);
  const { left: LEFT, right: RIGHT, top: TOP, bottom: BOTTOM } = EDGE;
  // As planned in white, as built in the green of what was measured, with something moved in yellow.
  const colour = (line: PlotLine) =>
    line.bright ? 'var(--paint-light)' : line.built ? 'var(--built)' : 'var(--scribe)';
  const scaled = $derived(scales(drive, lines, width, height));
  const x = $derived(scaled.x);
  const y = $derived(scaled.y);
  const names = $derived(ends(lines, scaled));

  const follow = (event: PointerEvent) => onrow(rowAt(drive, event.offsetX, scaled));
  function keydown(event: KeyboardEvent): void {
    const by = { ArrowLeft: -1, ArrowRight: 1, Home: -1e6, End: 1e6 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    onstep(event.shiftKey ? by * 10 : by);
  }
</script>

<div
  class="plot"
  bind:clientWidth={width}
  bind:clientHeight={height}
  tabindex="0"
  role="slider"
  aria-label={label}
  aria-valuemin={drive[0]}
  aria-valuemax={drive.at(-1)}
  aria-valuenow={drive[row]}
  onkeydown={keydown}
  onpointermove={follow}
  onpointerdown={follow}
>
  <svg bind:this={svg} {width} {height} xmlns="http://www.w3.org/2000/svg" font-family="sans-serif" font-size="14">
    <rect {width} {height} fill="var(--layout)" />
    <text x="16" y="26" fill="var(--scribe)" font-size="16">{label}</text>
    {#each y.ticks(6) as t (t)}
      <path d="M{LEFT} {y(t)}H{width - RIGHT}" stroke="var(--scribe-dim)" stroke-opacity={t === 0 ? 0.8 : 0.22} />
      <text x={LEFT - 8} y={y(t) + 5} fill="var(--scribe-dim)" text-anchor="end">{tick(t)}</text>
    {/each}
    {#each x.ticks(8) as t (t)}
      <path d="M{x(t)} {TOP}V{height - BOTTOM}" stroke="var(--scribe-dim)" stroke-opacity={t === 0 ? 0.8 : 0.22} />
      <text x={x(t)} y={height - BOTTOM + 20} fill="var(--scribe-dim)" text-anchor="middle">{tick(t)}</text>
    {/each}
    <text x={(LEFT + width - RIGHT) / 2} y={height - 8} fill="var(--scribe-dim)" text-anchor="middle"
      >{driveName}, {unit}</text
    >
    {#each lines as line, i (i)}
      <path
        d={curve(drive, line.values, scaled)}
        fill="none"
        stroke={colour(line)}
        stroke-width={line.bright ? 2.6 : 2}
        stroke-dasharray={line.dashed ? '9 5' : undefined}
      />
    {/each}
    {#each names as line, i (i)}
      <text
        x={width - RIGHT - 6}
        y={line.at - 6}
        text-anchor="end"
        stroke="var(--layout)"
        stroke-width="6"
        paint-order="stroke"
        stroke-linejoin="round"
        fill={colour(line)}>{line.name}</text
      >
    {/each}
    <path
      class="reading"
      d="M{x(drive[row] ?? 0)} {TOP}V{height - BOTTOM}"
      stroke="var(--paint-light)"
      stroke-width="1.5"
    />
    {#each lines as line, i (i)}
      {#if line.values[row] !== null && line.values[row] !== undefined}<circle
          cx={x(drive[row]!)}
          cy={y(line.values[row]!)}
          r="4.5"
          fill="var(--layout)"
          stroke={colour(line)}
          stroke-width="2"
        />{/if}
    {/each}
  </svg>
</div>

<style>
  .plot {
    position: relative;
    min-height: 260px;
    min-width: 0;
    border-radius: var(--round);
    overflow: hidden;
    background: var(--layout);
    touch-action: pan-y;
    cursor: crosshair;
  }
  svg {
    position: absolute;
    inset: 0;
    font-family: 'Figure', 'Label', sans-serif;
    font-variant-numeric: tabular-nums;
  }
</style>
