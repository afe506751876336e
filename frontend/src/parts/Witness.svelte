<script lang="ts">
  // The witness mark: a nut on its seat with a paint stripe across both. Shape carries the meaning; a word stands beside it.
  import type { MarkWord } from '$lib/api/client';

  type Props = { state: MarkWord | null; size?: number };
  let { state, size = 36 }: Props = $props();

  const hex = (turn: number) =>
    Array.from({ length: 6 }, (_, i) => turn + (i * Math.PI) / 3)
      .map((a) => `${(17 + 11.5 * Math.cos(a)).toFixed(2)},${(19 + 11.5 * Math.sin(a)).toFixed(2)}`)
      .join(' ');
</script>

<svg
  width={size}
  height={size}
  viewBox="0 0 38 38"
  role="img"
  aria-label={state ?? 'no aim'}
  data-state={state ?? 'no aim'}
>
  {#if state && state !== 'unread'}<path class="seat" d="M1 33.5H37" />{/if}
  <polygon class="nut" points={hex(state === 'moved since' ? 0.42 : 0)} />
  {#if state && state !== 'unread'}<circle class="core" cx="17" cy="19" r="5" />{/if}
  {#if state === 'holds'}
    <path class="stripe" d="M21 17 L37 7.5" />
  {:else if state === 'too close to call'}
    <path class="stripe dotted" d="M21 17 L37 7.5" />
  {:else if state === 'moved since'}
    <path class="stripe" d="M21.5 20.5 L29.5 22.5" /><path class="stripe" d="M31.5 10.8 L37 7.5" />
  {:else if state === 'out'}
    <path class="off" d="M20 5.5 H31.5 V17" />
  {/if}
</svg>

<style>
  svg {
    flex: none;
    overflow: visible;
  }
  .nut {
    fill: var(--steel-light);
    stroke: var(--steel-dark);
    stroke-width: 2;
  }
  .seat {
    stroke: var(--steel);
    stroke-width: 2;
    fill: none;
  }
  .core {
    fill: var(--steel-core);
  }
  .stripe {
    stroke: var(--paint);
    stroke-width: 5.2;
    fill: none;
  }
  .dotted {
    stroke-dasharray: 2.6 2.6;
  }
  .off {
    stroke: var(--rust);
    stroke-width: 4.4;
    fill: none;
  }
  [data-state='unread'] .nut,
  [data-state='no aim'] .nut {
    fill: none;
    stroke-dasharray: 3 3;
  }
  [data-state='no aim'] .nut {
    opacity: 0.35;
  }
</style>
