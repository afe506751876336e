<script lang="ts">
  // One reading of the frame: what it is off by, and how far the others check it.
  import type { JigView } from '$lib/api/client';
  import { JIG } from './texts';

  type Props = { reading: JigView['readings'][number]; onask: () => void; onstrike: () => void };
  let { reading: r, onask, onstrike }: Props = $props();
  const checked = $derived(Math.round((r.redundancy ?? 0) * 100));
  const stands = $derived(
    !r.counts ? JIG.stale : r.mute ? JIG.mute : checked > 0 ? `${JIG.checked} ${checked} %` : JIG.unchecked,
  );
</script>

<li class:no={r.wrong} data-past={!r.counts || undefined}>
  <button type="button" class="what" onclick={onask}>{r.say}</button>
  <span class="fig">{r.residual}</span>
  <small>{r.wrong || stands}</small>
  <button type="button" class="button" onclick={onstrike}>{JIG.strikeOut}</button>
</li>

<style>
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 64px 110px auto;
    gap: 8px;
    align-items: center;
    border-top: 1px solid var(--edge);
    font-size: var(--type-small);
  }
  .what {
    border: 0;
    background: none;
    text-align: left;
    cursor: pointer;
    padding: 2px 0;
    line-height: 1.2;
  }
  .what:hover {
    text-decoration: underline;
  }
  .fig {
    text-align: right;
  }
  li:not(.no) small {
    color: var(--ink-soft);
  }
  small {
    font-size: var(--type-label);
  }
  .button {
    min-height: 34px;
    font-weight: 400;
    padding: 0 8px;
    font-size: var(--type-small);
  }
  [data-past] .what,
  [data-past] .fig {
    opacity: 0.6;
  }
  @media (pointer: coarse) {
    .button {
      min-height: var(--touch);
    }
  }
</style>
