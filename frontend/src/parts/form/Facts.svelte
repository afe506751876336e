<script lang="ts">
  // What is what: names and their figures, two columns.
  type Props = { rows: readonly (readonly [string, string])[]; live?: boolean };
  let { rows, live = false }: Props = $props();
</script>

<dl aria-live={live ? 'polite' : undefined}>
  {#each rows as [what, much], i (i)}<dt>{what}</dt>
    <dd class="fig">{much}</dd>{/each}
</dl>

<style>
  dl {
    display: grid;
    grid-template-columns: minmax(9em, auto) minmax(0, 1fr);
    gap: 2px 14px;
    margin: 0;
    align-content: start;
    font-size: 0.9375rem;
  }
  dt {
    color: var(--ink-soft);
  }
  dd {
    margin: 0;
    font-weight: 700;
  }
</style>
