<script lang="ts">
  // One field of a described form.
  import type { FormField } from '$lib/kinds';
  import { CORNER_WORDS } from '$lib/marks';

  type Props = { field: FormField; points: string[]; value: string | boolean };
  let { field, points, value = $bindable() }: Props = $props();

  const words = (option: string) => (CORNER_WORDS as Record<string, string>)[option] ?? option;
</script>

{#if field.as === 'check'}
  <label class="check"><input type="checkbox" bind:checked={value as boolean} />{field.label}</label>
{:else}
  <label
    >{field.label}
    {#if field.as === 'choice'}
      <select bind:value
        >{#each field.options as o (o)}<option value={o}>{words(o)}</option>{/each}</select
      >
    {:else if field.as === 'point'}
      <select bind:value
        ><option value=""></option>{#each points as p (p)}<option value={p}>{p.replaceAll('.', ' ')}</option
          >{/each}</select
      >
    {:else}
      <input class:fig={field.as === 'figure'} bind:value maxlength={field.as === 'figure' ? 30 : 80} />
    {/if}
  </label>
{/if}
