<script lang="ts">
  // Curves on layout-blue paper, with a reading line that follows the mouse or the arrow keys.
  type Line = { name: string; values: (number | null)[]; dashed?: boolean; bright?: boolean; built?: boolean };
  type Props = {
    label: string;
    drive: number[];
    driveName: string;
    unit: string;
    lines: Line[];
    row: number;
    onrow: (row: number) => void;
    onstep: (by: number) => void;
    svg?: SVGSVGElement | undefined;
  };
  let { label, drive, driveName, unit, lines, row, onrow, onstep, svg = $bindable() }: Props = $props();

  let width = $state(600);
  let height = $state(400);
  const LEFT = 64;
  const RIGHT = 18;
  const TOP = 40;
  const BOTTOM = 46;

  // As planned in white, as built in the green of what was measured, with something moved in yellow.
  const colour = (line: Line) => (line.bright ? '#ffd45c' : line.built ? '#8fe3b0' : '#eef2fb');
  const all = $derived(lines.flatMap((l) => l.values.filter((v): v is number => v !== null)));
  const bounds = $derived.by(() => {
    const [low, high] = [Math.min(...all, Infinity), Math.max(...all, -Infinity)];
    if (!Number.isFinite(low)) return { low: -1, high: 1 };
    const pad = Math.max((high - low) * 0.08, Math.abs(high) * 1e-3, 1e-4);
    return { low: low - pad, high: high + pad };
  });
  const x = $derived(
    (v: number) => LEFT + ((v - drive[0]!) / (drive.at(-1)! - drive[0]! || 1)) * (width - LEFT - RIGHT),
  );
  const y = $derived(
    (v: number) => height - BOTTOM - ((v - bounds.low) / (bounds.high - bounds.low)) * (height - TOP - BOTTOM),
  );

  function ticks(low: number, high: number, wanted: number): number[] {
    const rough = (high - low) / wanted;
    const power = 10 ** Math.floor(Math.log10(rough));
    const step = [1, 2, 5, 10].map((m) => m * power).find((s) => s >= rough) ?? rough;
    const first = Math.ceil(low / step - 1e-9);
    return Array.from(
      { length: Math.floor(high / step + 1e-9) - first + 1 },
      (_, i) => +((first + i) * step).toPrecision(10),
    );
  }
  function path(values: (number | null)[]): string {
    let pen = false;
    return values
      .map((v, i) => {
        if (v === null) return ((pen = false), '');
        const said = `${pen ? 'L' : 'M'}${x(drive[i]!).toFixed(1)} ${y(v).toFixed(1)}`;
        pen = true;
        return said;
      })
      .join('');
  }
  function follow(event: PointerEvent): void {
    const at = drive[0]! + ((event.offsetX - LEFT) / (width - LEFT - RIGHT)) * (drive.at(-1)! - drive[0]!);
    const step = (drive.at(-1)! - drive[0]!) / (drive.length - 1);
    onrow(Math.min(Math.max(Math.round((at - drive[0]!) / step), 0), drive.length - 1));
  }
  function keydown(event: KeyboardEvent): void {
    const by = { ArrowLeft: -1, ArrowRight: 1, Home: -1e6, End: 1e6 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    onstep(event.shiftKey ? by * 10 : by);
  }
  const names = $derived.by(() => {
    // Names stand at the right ends of the lines, kept apart where they would lie on each other.
    const placed = lines
      .map((l) => ({ ...l, at: y(l.values.findLast((v) => v !== null) ?? 0) }))
      .filter((l) => l.name)
      .sort((a, b) => a.at - b.at);
    placed.forEach((l, i) => (l.at = i ? Math.max(l.at, placed[i - 1]!.at + 18) : Math.max(l.at, TOP + 10)));
    return placed;
  });
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
    <rect {width} {height} fill="#20386b" />
    <text x="16" y="26" fill="#eef2fb" font-size="16">{label}</text>
    {#each ticks(bounds.low, bounds.high, 6) as t (t)}
      <path d="M{LEFT} {y(t)}H{width - RIGHT}" stroke="#a9b9de" stroke-opacity={t === 0 ? 0.8 : 0.22} />
      <text x={LEFT - 8} y={y(t) + 5} fill="#a9b9de" text-anchor="end">{String(t).replace('-', '−')}</text>
    {/each}
    {#each ticks(drive[0]!, drive.at(-1)!, 8) as t (t)}
      <path d="M{x(t)} {TOP}V{height - BOTTOM}" stroke="#a9b9de" stroke-opacity={t === 0 ? 0.8 : 0.22} />
      <text x={x(t)} y={height - BOTTOM + 20} fill="#a9b9de" text-anchor="middle">{String(t).replace('-', '−')}</text>
    {/each}
    <text x={(LEFT + width - RIGHT) / 2} y={height - 8} fill="#a9b9de" text-anchor="middle">{driveName}, {unit}</text>
    {#each lines as line, i (i)}
      <path
        d={path(line.values)}
        fill="none"
        stroke={colour(line)}
        stroke-width={line.bright ? 2.6 : 2}
        stroke-dasharray={line.dashed ? '9 5' : undefined}
      />
    {/each}
    {#each names as line (line.name)}
      <text
        x={width - RIGHT - 6}
        y={line.at - 6}
        text-anchor="end"
        stroke="#20386b"
        stroke-width="6"
        paint-order="stroke"
        stroke-linejoin="round"
        fill={colour(line)}>{line.name}</text
      >
    {/each}
    <path class="reading" d="M{x(drive[row] ?? 0)} {TOP}V{height - BOTTOM}" stroke="#ffd45c" stroke-width="1.5" />
    {#each lines as line, i (i)}
      {#if line.values[row] !== null && line.values[row] !== undefined}<circle
          cx={x(drive[row]!)}
          cy={y(line.values[row]!)}
          r="4.5"
          fill="#20386b"
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
