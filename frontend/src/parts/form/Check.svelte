<script lang="ts">
  // Yes or no.
  type Props = { label: string; checked: boolean; onpick?: (checked: boolean) => void };
  let { label, checked = $bindable(), onpick }: Props = $props();
</script>

<label><input type="checkbox" bind:checked onchange={() => onpick?.(checked)} />{label}</label>

<style>
  label {
    display: flex;
    gap: 10px;
    align-items: center;
    min-height: var(--touch);
  }
  input {
    width: 22px;
    height: 22px;
    flex: none;
    accent-color: var(--layout);
  }
</style>
