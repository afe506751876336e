<script lang="ts">
  // A card of forms at the jig: fieldsets with fields in a row; how they look is said here alone.
  import type { Snippet } from 'svelte';

  type Props = { label: string; children: Snippet };
  let { label, children }: Props = $props();
</script>

<section class="card" aria-label={label}>{@render children()}</section>

<style>
  section {
    min-height: 0;
    overflow: auto;
    display: grid;
    gap: 10px;
    align-content: start;
  }
  section :global {
    fieldset {
      border: 1px solid var(--edge);
      border-radius: var(--round);
      padding: 4px 10px 8px;
      margin: 0;
      min-width: 0;
      display: grid;
      gap: 6px;
    }
    legend {
      font-weight: 700;
      padding: 0 4px;
    }
    .grid {
      display: grid;
      gap: 8px;
      align-items: end;
    }
    .two {
      grid-template-columns: minmax(0, 1fr) auto;
    }
    .three {
      grid-template-columns: repeat(2, minmax(0, 1fr)) auto;
    }
    .four {
      grid-template-columns: repeat(3, minmax(0, 1fr)) auto;
    }
    .five {
      grid-template-columns: repeat(4, minmax(0, 1fr)) auto;
    }
    .six {
      grid-template-columns: repeat(3, minmax(0, 1fr));
    }
    label {
      display: grid;
      color: var(--ink-soft);
      font-size: 0.8125rem;
      min-width: 0;
    }
    input,
    select,
    textarea {
      min-height: var(--touch);
      width: 100%;
      border: 1px solid var(--steel-dark);
      border-radius: var(--round);
      background: #fff;
      padding: 2px 8px;
      font-size: 1rem;
      color: var(--ink);
      min-width: 0;
    }
    .check {
      display: flex;
      gap: 10px;
      align-items: center;
      min-height: var(--touch);
      color: var(--ink);
      font-size: 1rem;
    }
    .check input {
      width: 22px;
      min-height: 22px;
      height: 22px;
      accent-color: var(--layout);
    }
    .caution {
      background: #fff4cf;
      border-left: 6px solid var(--rust);
      padding: 2px 8px;
      font-size: 0.875rem;
    }
    [role='alert'] {
      color: var(--rust);
      font-weight: 700;
      font-size: 0.875rem;
    }
  }
</style>
