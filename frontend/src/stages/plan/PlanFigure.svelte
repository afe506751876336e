<script lang="ts">
  // A figure of the plan: its field in the car's units, with what is wrong at its path.
  import type { ComponentProps } from 'svelte';
  import Figure from '$parts/form/Figure.svelte';
  import { theSheet } from './sheet.svelte';

  type Props = Omit<ComponentProps<typeof Figure>, 'units' | 'problem'> & { at?: string; problem?: string };
  let { value = $bindable(), at = '', problem = '', ...rest }: Props = $props();
  const sheet = theSheet();
</script>

<Figure {...rest} bind:value units={sheet.draft.units} problem={problem || (at && sheet.at(at))} />
