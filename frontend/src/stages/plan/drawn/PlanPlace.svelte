<script lang="ts">
  // One figure of the plan where it stands on the drawing: a dimension or a written figure; touched, the tape asks for it.
  import type { PlanDesk } from './plan-desk.svelte';
  import { DRAWN } from '../texts';

  type Props = {
    desk: PlanDesk;
    px: number;
    path: string;
    x1?: number;
    y1?: number;
    x2?: number;
    y2?: number;
    before?: boolean; // an upright one, with its figure to the left
    at?: { x: number; y: number; after: boolean };
  };
  let { desk, px, path, x1 = 0, y1 = 0, x2 = 0, y2 = 0, before = false, at }: Props = $props();

  const ask = $derived(desk.every.find((a) => a.path === path)!);
  const now = $derived(desk.ask.path === path);
  const wrong = $derived(Boolean(desk.wrong[path]?.why));
  const typing = $derived(now && desk.typed ? desk.typed : '');
  const figure = $derived(typing || desk.shown(ask) || '?');
  const upright = $derived(Math.abs(y2 - y1) > Math.abs(x2 - x1));
  const text = $derived(
    at
      ? { x: at.x, y: at.y + 6 * px, anchor: at.after ? 'start' : 'end' }
      : {
          x: (x1 + x2) / 2 + (upright ? (before ? -8 : 10) * px : 0),
          y: (y1 + y2) / 2 - (upright ? -6 : 9) * px,
          anchor: !upright ? 'middle' : before ? 'end' : 'start',
        },
  );
  // What a finger finds: the dimension with its figure, nowhere less than 44 px.
  const target = $derived.by(() => {
    if (at) return { x: at.after ? at.x - 6 * px : at.x - 92 * px, y: at.y - 22 * px, w: 98 * px, h: 44 * px };
    const [left, top] = [Math.min(x1, x2), Math.min(y1, y2)];
    const [w, h] = [Math.max(Math.abs(x2 - x1), 48 * px), Math.max(Math.abs(y2 - y1), 48 * px)];
    return upright
      ? { x: left - (before ? 56 : 16) * px, y: (y1 + y2) / 2 - h / 2, w: 72 * px, h }
      : { x: (x1 + x2) / 2 - w / 2, y: top - 32 * px, w, h: 48 * px };
  });
  const head = (x: number, y: number, way: number) =>
    upright
      ? `M${x - 4.5 * px} ${y + 9 * px * way}L${x} ${y}L${x + 4.5 * px} ${y + 9 * px * way}`
      : `M${x + 9 * px * way} ${y - 4.5 * px}L${x} ${y}L${x + 9 * px * way} ${y + 4.5 * px}`;
  const way = $derived(upright ? Math.sign(y2 - y1) : Math.sign(x2 - x1));
  const open = () => desk.open(path);
  const key = (e: KeyboardEvent) => (e.key === 'Enter' || e.key === ' ') && (e.preventDefault(), open());
</script>

<g
  role="button"
  tabindex="-1"
  aria-label="{ask.title}: {figure === '?' ? DRAWN.notGiven : figure}"
  aria-pressed={now}
  onclick={open}
  onkeydown={key}
>
  <rect class="touch" x={target.x} y={target.y} width={target.w} height={target.h} />
  {#if !at}
    <path
      class={now ? 'now' : 'thin'}
      stroke-dasharray={ask.value === null ? '7 6' : undefined}
      d="M{x1} {y1}L{x2} {y2}"
    />
    <path class={now ? 'now' : 'thin'} d="{head(x1, y1, way)}{head(x2, y2, -way)}" />
  {/if}
  <text
    class:now-word={now}
    class:wrong
    font-size={(at ? 16 : now ? 24 : 19) * px}
    x={text.x}
    y={text.y}
    text-anchor={text.anchor as 'start'}
    >{#if at}<tspan class="word">{`${ask.short} `}</tspan>{/if}<tspan class="fig">{figure}</tspan></text
  >
</g>

<style>
  g {
    cursor: pointer;
    outline: none;
  }
  .touch {
    fill: transparent;
  }
  .word {
    fill: var(--scribe-dim);
  }
  .fig {
    font-family: 'Figure', sans-serif;
  }
  .wrong {
    fill: var(--amiss) !important;
  }
  g:hover text {
    text-decoration: underline;
  }
</style>
