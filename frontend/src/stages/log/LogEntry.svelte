<script lang="ts">
  // One line of the log; what may be struck out or put back has its button.
  import type { LogLine } from '$lib/api/client';
  import { when } from './when';
  import { LOG } from './texts';

  type Props = { line: LogLine; correction: LogLine | undefined; onstrike: (id: string) => void };
  let { line, correction, onstrike }: Props = $props();
  const target = $derived(line.strikable ? line : correction?.strikable ? correction : null);
  const does = $derived(target?.kind === 'correction' ? LOG.back : LOG.strike);
</script>

<li data-struck={line.struck_by ?? undefined} data-kind={line.kind}>
  <span class="fig n">{line.entry.number}</span>
  <span class="say"
    >{line.sentence}{#if line.struck_by}<small>{LOG.struck(line.struck_by)}</small>{/if}</span
  >
  <small>{when(line.entry.at)} <br />{line.entry.who || LOG.nobody}</small>
  {#if target}
    <button
      class="button"
      type="button"
      onclick={() => onstrike(target.entry.id)}
      aria-label="{does} {line.entry.number}">{does}</button
    >
  {/if}
</li>

<style>
  li {
    border-top: 1px solid var(--edge);
    padding: 4px 0;
    min-height: 52px;
    display: grid;
    grid-template-columns: 44px minmax(0, 1fr) 130px 112px;
    gap: 10px;
    align-items: center;
  }
  .n {
    color: var(--ink-soft);
    text-align: right;
  }
  .say {
    font-size: 1.0625rem;
  }
  small {
    color: var(--ink-soft);
    font-size: var(--type-label);
  }
  .say small {
    display: inline-block;
  }
  [data-struck] .say {
    text-decoration: line-through;
    color: var(--ink-soft);
  }
  [data-kind='turned'] .n {
    box-shadow: -6px 0 var(--paint);
  }
  [data-kind='plan'] .n {
    box-shadow: -6px 0 var(--layout);
  }
  .button {
    font-weight: 400;
    border-color: var(--edge);
  }
  @media (max-width: 700px) {
    li {
      grid-template-columns: 34px minmax(0, 1fr) auto;
      gap: 2px 10px;
    }
    .say {
      grid-column: 2 / -1;
    }
    li > small {
      grid-column: 2;
    }
    li > small br {
      display: none;
    }
    .button {
      grid-area: 2 / 3;
    }
  }
</style>
