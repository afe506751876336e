<script lang="ts">
  // Which of the things that happen to a car it was.
  import { LOG } from './texts';

  type Props = { what: keyof typeof LOG.what };
  let { what = $bindable() }: Props = $props();
</script>

<h2>{LOG.happened}</h2>
<fieldset>
  <legend class="hidden">{LOG.happened}</legend>
  {#each Object.entries(LOG.what) as [value, name] (value)}
    <label><input type="radio" name="what" {value} bind:group={what} />{name}</label>
  {/each}
</fieldset>

<style>
  h2 {
    font-size: 1rem;
  }
  fieldset {
    border: 0;
    padding: 0;
    margin: 0;
    display: grid;
  }
  label {
    min-height: var(--touch);
    display: flex;
    gap: 10px;
    align-items: center;
  }
  input {
    width: 20px;
    height: 20px;
    accent-color: var(--layout);
  }
</style>
