<script lang="ts">
  // A field for words, read when it is left; for figures in shop notation where they go out as typed.
  import Field from './Field.svelte';

  type Props = {
    label: string;
    name?: string;
    value: string;
    problem?: string;
    amiss?: boolean; // what is wrong is told elsewhere
    bare?: boolean;
    figure?: boolean;
    max?: number;
    list?: string;
    hint?: string;
    title?: string;
    rows?: number;
    onchange?: (value: string) => void;
    oninput?: (value: string) => void;
  };
  let {
    label,
    name,
    value = $bindable(),
    problem = '',
    amiss = false,
    bare = false,
    figure = false,
    max = 80,
    list,
    hint,
    title,
    rows,
    onchange,
    oninput,
  }: Props = $props();

  const told = $derived({
    placeholder: hint,
    title,
    'aria-label': name,
    'aria-invalid': problem || amiss ? true : undefined,
  });
  function typed(event: Event & { currentTarget: HTMLInputElement | HTMLTextAreaElement }): void {
    value = event.currentTarget.value;
    oninput?.(value);
  }
</script>

<Field {label} {problem} {bare}>
  {#if rows}<textarea class="field" {value} {rows} maxlength={max} {...told} oninput={typed}></textarea>
  {:else}<input
      class="field"
      class:fig={figure}
      {value}
      maxlength={max}
      {list}
      autocomplete="off"
      {...told}
      oninput={typed}
      onchange={() => onchange?.(value.trim())}
    />{/if}
</Field>
