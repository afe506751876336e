<script lang="ts">
  // The travel of one wheel as a vertical strip: droop stop, where it stands, bump stop, ground, tyre to body; all of it to one scale.
  import type { StanceView } from '$lib/api/client';
  import { STRIP } from './texts';

  type Props = { strip: NonNullable<StanceView['corners'][number]['strip']>; label: string; height?: number };
  let { strip, label, height = 170 }: Props = $props();

  let wide = $state(150);
  const px = $derived(150 / (wide || 150)); // of the drawing, a pixel of the page
  const near = $derived(15 * px); // between two words
  const shown = $derived([
    ...strip.bump.filter((k, i) => i < 1 || k.stop || k.name === 'ground' || k.name === 'tyre to body'),
    ...strip.droop.slice(0, 1),
  ]);
  const reach = $derived([
    Math.min(...shown.map((k) => k.travel), -20),
    Math.max(...shown.map((k) => k.travel), 20),
  ] as const);
  const y = $derived((t: number) => 10 + ((reach[1] - t) / (reach[1] - reach[0])) * (height - 20));
  const stand = $derived(strip.now ?? strip.wanted);
  const rows = $derived.by(() => {
    const all = [
      ...shown.map((k) => ({
        at: y(k.travel),
        text: `${STRIP.names[k.name] ?? k.name} ${k.say}`,
        kind: k.stop ? 'stop' : 'other',
      })),
      { at: y(stand), text: strip.now === null ? STRIP.ride : STRIP.now, kind: 'now' },
    ].sort((a, b) => a.at - b.at);
    let last = -Infinity;
    return all.map((row) => ({ ...row, word: (last = Math.max(row.at, last + near)) }));
  });
</script>

<svg
  bind:clientWidth={wide}
  style:--px={px}
  viewBox="0 0 150 {height + 2}"
  role="img"
  aria-label={label}
  data-amiss={strip.lines.some(([, amiss]) => amiss) || undefined}
>
  <rect
    class="rail"
    x="6"
    y={y(strip.bump.find((k) => k.stop)?.travel ?? reach[1])}
    width="16"
    height={Math.max(
      y(strip.droop.find((k) => k.stop)?.travel ?? reach[0]) - y(strip.bump.find((k) => k.stop)?.travel ?? reach[1]),
      1,
    )}
  />
  {#each rows as row, i (i)}
    <path class={row.kind} d="M2 {row.at}H26" /><path class="lead" d="M26 {row.at}L34 {row.word}" />
    <text class={row.kind} x="37" y={row.word + 4}>{row.text}</text>
  {/each}
  <path class="wanted" d="M2 {y(strip.wanted)}H26" />
</svg>

<style>
  svg {
    display: block;
    width: 100%;
    max-width: 190px;
    overflow: visible;
  }
  .rail {
    fill: var(--steel-light);
    stroke: var(--steel-dark);
    stroke-width: 1;
  }
  path {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  path.stop {
    stroke-width: 3.4;
  }
  path.other {
    stroke: var(--rust);
    stroke-width: 2;
    stroke-dasharray: 3 2;
  }
  path.now {
    stroke: var(--layout);
    stroke-width: 5;
  }
  path.wanted {
    stroke: var(--paint);
    stroke-width: 2;
  }
  path.lead {
    stroke: var(--steel);
    stroke-width: 0.8;
  }
  text {
    font-family: 'Label', sans-serif;
    font-size: calc(14px * var(--px));
    fill: var(--ink);
  }
  text.other {
    fill: var(--rust);
  }
  text.now {
    font-weight: 700;
    fill: var(--layout);
  }
</style>
