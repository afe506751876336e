<script lang="ts">
  // A small drawing of each layout, of our own: left wheel from behind, or the axle from above.
  import type { Layout } from '$lib/api/client';
  type Props = { name: Layout['name'] };
  let { name }: Props = $props();

  const WHEEL = 'M8 14h12v44H8z';
  const LINES: Record<Layout['name'], string> = {
    'double wishbone': 'M20 24L58 28M20 46L62 50M22 24v22',
    'five link': 'M20 22L50 18M20 26L58 30M20 44L48 54M20 40L60 46M20 34L62 36M21 20v26',
    strut: 'M20 48L60 52M22 48L34 10M30 16l8 3M28 22l8 3M26 28l8 3',
    'trailing arm': 'M20 36L62 20M20 30L54 38M20 44L54 52M60 17l5 5',
    'hinged arm': 'M20 34L56 24M20 38L60 46M52 20L66 52',
    'four link axle': 'M8 36H72M20 36L18 12M60 36L62 12M26 36L32 12M54 36L48 12',
    'three link axle': 'M8 36H72M20 36L20 10M60 36L60 10M40 36L40 12M24 46L64 44',
  };
  const axle = $derived(name.endsWith('axle'));
</script>

<svg viewBox="0 0 80 70" width="72" height="58" aria-hidden="true">
  {#if axle}<path class="wheel" d="M4 24h8v24H4zM68 24h8v24h-8z" />{:else}<path class="wheel" d={WHEEL} />{/if}
  <path d={LINES[name]} />
</svg>

<style>
  path {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2.2;
    stroke-linecap: round;
  }
  .wheel {
    stroke: var(--steel-dark);
    fill: var(--steel-light);
  }
</style>
