<script lang="ts">
  // A dimension from place to place, with its figure; lit when it is what is to be read now.
  type Props = {
    x1: number;
    y1: number;
    x2: number;
    y2: number;
    px: number;
    text?: string;
    now?: boolean;
    side?: 1 | -1;
  };
  let { x1, y1, x2, y2, px, text = '', now = false, side = 1 }: Props = $props();

  const long = $derived(Math.hypot(x2 - x1, y2 - y1) || 1);
  const ux = $derived((x2 - x1) / long);
  const uy = $derived((y2 - y1) / long);
  const head = (x: number, y: number, way: number) => {
    const [a, b] = [8 * px * way, 4.5 * px];
    return `M${x + a * ux - b * uy} ${y + a * uy + b * ux}L${x} ${y}L${x + a * ux + b * uy} ${y + a * uy - b * ux}`;
  };
  const upright = $derived(Math.abs(uy) > 0.7);
</script>

<g class={now ? 'now' : 'thin'}>
  <path class={now ? 'now' : 'thin'} d="M{x1} {y1}L{x2} {y2}{head(x1, y1, 1)}{head(x2, y2, -1)}" />
  {#if now}<circle class="now" cx={x2} cy={y2} r={9 * px} />{/if}
</g>
{#if text}
  <text
    class="fig"
    class:now-word={now}
    font-size={(now ? 24 : 19) * px}
    x={(x1 + x2) / 2 + (upright ? 12 * px * side : 0)}
    y={(y1 + y2) / 2 - (upright ? -6 : 10) * px}
    text-anchor={upright ? (side > 0 ? 'start' : 'end') : 'middle'}
    style:font-family="Figure">{text}</text
  >
{/if}
