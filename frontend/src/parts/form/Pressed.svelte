<script lang="ts" generics="V extends string">
  // One of a few, side by side, the one that holds pressed.
  type Props = {
    label: string;
    options: Readonly<Partial<Record<V, string>>>;
    value: V;
    onpick: (value: V) => void;
    onpaper?: boolean;
  };
  let { label, options, value, onpick, onpaper = false }: Props = $props();
  const rows = $derived(Object.entries<string>(options as Record<string, string>));
</script>

<div role="group" aria-label={label} class:onpaper>
  {#each rows as [key, words] (key)}
    <button type="button" class="button" aria-pressed={value === key} onclick={() => onpick(key as V)}>{words}</button>
  {/each}
</div>

<style>
  div {
    display: flex;
    flex-wrap: wrap;
    flex: none;
    padding-left: 1px;
  }
  .button {
    border-radius: 0;
    margin-left: -1px;
    padding: 0 12px;
    font-weight: 400;
  }
  [aria-pressed='true'] {
    background: var(--layout);
    color: var(--paper);
    font-weight: 700;
  }
  .onpaper .button {
    background: var(--layout-deep);
    color: var(--scribe);
    border-color: var(--scribe-dim);
  }
  .onpaper [aria-pressed='true'] {
    background: var(--scribe);
    color: var(--layout);
  }
  @media (max-width: 1000px) {
    div {
      flex: 1 1 auto;
    }
  }
</style>
