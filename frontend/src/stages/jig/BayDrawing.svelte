<script lang="ts">
  // A frame of which nothing is known: its four corners from above, what is asked of it lit, and the six tapes that tell it square.
  import Dimension from '$parts/drawing/Dimension.svelte';
  import Paper from '$parts/drawing/Paper.svelte';
  import { BAYS } from './texts';

  type Props = { now: string };
  let { now }: Props = $props();
  const at = (part: string) => now.endsWith(`.${part}`);
</script>

<Paper label={BAYS.label}>
  {#snippet children(width, height)}
    {@const [left, right] = [width * 0.2, width * 0.8]}
    {@const [top, bottom] = [height * 0.28, height * 0.72]}
    <rect class="line" x={left} y={top} width={right - left} height={bottom - top} />
    <path class="axis" d="M{left} {top}L{right} {bottom}M{left} {bottom}L{right} {top}" />
    {#each [[left, top], [right, top], [left, bottom], [right, bottom]] as [x, y], i (i)}
      <circle class="line" cx={x} cy={y} r="6" />
    {/each}
    <Dimension x1={left} y1={top - 26} x2={right} y2={top - 26} px={1} text={BAYS.long} now={at('length')} />
    <Dimension
      x1={left - 22}
      y1={top}
      x2={left - 22}
      y2={bottom}
      px={1}
      side={-1}
      text={BAYS.front}
      now={at('front')}
    />
    <Dimension x1={right + 22} y1={top} x2={right + 22} y2={bottom} px={1} text={BAYS.rear} now={at('rear')} />
    <text class="dim-word" x={width / 2} y={bottom + 28} text-anchor="middle">{BAYS.tapes}</text>
  {/snippet}
</Paper>
