<script lang="ts">
  // One of a few, each a line of words on a key.
  type Props = { title: string; options: { name: string; words: string }[]; value: string };
  let { title, options, value = $bindable() }: Props = $props();
</script>

<fieldset>
  <legend>{title}</legend>
  {#each options as option (option.name)}
    <button type="button" aria-pressed={value === option.name} onclick={() => (value = option.name)}
      >{option.words}</button
    >
  {/each}
</fieldset>

<style>
  fieldset {
    border: 0;
    padding: 0;
    margin: 0;
    width: 100%;
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(280px, 1fr));
    gap: 6px;
  }
  legend {
    font-weight: 700;
    padding: 0 0 6px;
  }
  button {
    min-height: var(--touch);
    padding: 6px 14px;
    text-align: left;
    border: 1px solid var(--steel);
    border-radius: var(--round);
    background: var(--card);
    color: var(--ink);
    cursor: pointer;
  }
  [aria-pressed='true'] {
    background: var(--paint);
    border-color: var(--ink);
    font-weight: 700;
  }
</style>
