<script lang="ts">
  // One sum: its fields, the button that asks for it, and what it came to.
  import type { Snippet } from 'svelte';
  import type { StanceAsk } from '$lib/api/client';
  import Facts from '$parts/form/Facts.svelte';
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import type { Asked, Kind } from './sums.svelte';
  import { SUMS } from './texts';

  type Props = {
    asked: Asked;
    kind: Kind;
    title: string;
    soft?: string;
    cols?: number;
    button?: string;
    make: () => StanceAsk | Promise<StanceAsk>;
    children: Snippet;
  };
  let { asked, kind, title, soft = '', cols = 4, button = SUMS.go, make, children }: Props = $props();
  const answer = $derived(asked.answers[kind]);
</script>

<Group {title} {soft}>
  <Row {cols}>
    {@render children()}
    <button type="button" class="button" onclick={() => void asked.ask(kind, make)}>{button}</button>
  </Row>
  {#if answer?.refusal}<p class="no" role="alert">{answer.refusal}</p>{/if}
  {#if answer?.lines.length}<Facts rows={answer.lines} live />{/if}
</Group>
