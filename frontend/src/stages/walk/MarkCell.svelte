<script lang="ts">
  // One mark: its witness mark, figure, and the reason it stands as it does.
  import type { MarkView } from '$lib/api/client';
  import { wordFor } from '$lib/marks';
  import Witness from '$parts/Witness.svelte';
  import { WALK } from './texts';

  type Props = { mark: MarkView; label: string; onpick?: () => void };
  let { mark, label, onpick }: Props = $props();

  const word = $derived(
    mark.state === 'holds'
      ? mark.say_aim
      : mark.state === 'unread'
        ? mark.reason
        : mark.state
          ? `${mark.state}: ${mark.reason}`
          : WALK.noAim,
  );
  const told = $derived(
    [word, mark.provisional ? WALK.provisional : '', mark.odd ? WALK.odd(mark.odd) : ''].filter(Boolean).join(' · '),
  );
</script>

<button
  type="button"
  data-state={wordFor(mark.state)}
  aria-label="{label}: {mark.say} {told}, {[mark.say_u, wordFor(mark.state), mark.reason].filter(Boolean).join(', ')}"
  title={[
    mark.say_aim,
    mark.reason,
    mark.settle,
    mark.chance === null ? '' : WALK.chance(Math.round(mark.chance * 100)),
  ]
    .filter(Boolean)
    .join(' · ')}
  onclick={onpick}
  disabled={!onpick}
>
  {#if mark.state}<Witness state={mark.state} size={34} />{/if}
  <span>
    <b class="fig">{mark.say}</b>
    <small>{told}</small>
  </span>
</button>

<style>
  button {
    width: 100%;
    min-height: var(--touch);
    border: 0;
    background: none;
    padding: 2px;
    display: flex;
    gap: 7px;
    align-items: center;
    text-align: left;
    cursor: pointer;
  }
  button:disabled {
    cursor: default;
  }
  span {
    min-width: 0;
  }
  b {
    display: block;
    font-weight: 400;
    font-size: 1.1875rem;
    line-height: 1.15;
    white-space: nowrap;
  }
  small {
    color: var(--ink-soft);
    font-size: var(--type-label);
    line-height: 1.2;
    display: block;
  }
  [data-state='out'] small {
    color: var(--rust);
  }
</style>
