<script lang="ts">
  // One inch of steel rule: touch it or slide along it, and the nearest tick of the car's finest is the fraction.
  import { ticksOf, withTicks } from './keys';
  import { TAPE } from '../texts';

  type Props = { typed: string; finest: number; ontype: (typed: string) => void };
  let { typed, finest, ontype }: Props = $props();

  let wide = $state(320);
  let down = $state(false);
  const PAD = 14;
  const inch = $derived(wide - 2 * PAD);
  const ticks = $derived(ticksOf(typed, finest));
  const at = (i: number) => PAD + (inch * i) / finest;
  const tall = (i: number) => [34, 26, 20, 15, 11, 8, 6][Math.log2(finest / (i & -i || finest))] ?? 6;
  const put = (event: PointerEvent) => {
    const x = event.clientX - (event.currentTarget as Element).getBoundingClientRect().left;
    const nearest = Math.round(((x - PAD) / inch) * finest);
    ontype(withTicks(typed, Math.min(Math.max(nearest, 0), finest - 1), finest));
  };
  const key = (event: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (!by) return;
    event.preventDefault();
    ontype(withTicks(typed, Math.min(Math.max(ticks + by, 0), finest - 1), finest));
  };
</script>

<div
  bind:clientWidth={wide}
  role="slider"
  tabindex="0"
  aria-label={TAPE.fraction}
  aria-valuemin="0"
  aria-valuemax={finest - 1}
  aria-valuenow={ticks}
  aria-valuetext={typed || '0'}
  onpointerdown={(e) => {
    down = true;
    e.currentTarget.setPointerCapture(e.pointerId);
    put(e);
  }}
  onpointermove={(e) => down && put(e)}
  onpointerup={() => (down = false)}
  onpointercancel={() => (down = false)}
  onkeydown={key}
>
  <svg width={wide} height="56" aria-hidden="true">
    {#each { length: finest + 1 }, i}
      <path d="M{at(i)} 0V{i === 0 || i === finest ? 34 : tall(i)}" data-long={tall(i) > 18 || undefined} />
    {/each}
    {#each [1, 2, 3] as quarter (quarter)}
      <text x={at((finest * quarter) / 4)} y="50" text-anchor="middle">{quarter === 2 ? '1/2' : `${quarter}/4`}</text>
    {/each}
    {#if ticks}<path class="mark" d="M{at(ticks)} 0V40" /><circle cx={at(ticks)} cy="42" r="9" />{/if}
  </svg>
</div>

<style>
  div {
    height: 56px;
    border: 1px solid var(--steel-dark);
    border-radius: var(--round);
    background: linear-gradient(var(--rule-top), var(--rule-bottom));
    touch-action: none;
    cursor: pointer;
    min-width: 0;
    overflow: hidden;
  }
  path {
    stroke: var(--ink-soft);
    stroke-width: 1;
  }
  [data-long] {
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .mark {
    stroke: var(--paint);
    stroke-width: 4;
  }
  circle {
    fill: var(--paint);
  }
  text {
    font-family: 'Figure', sans-serif;
    font-size: 14px;
    fill: var(--ink);
  }
</style>
