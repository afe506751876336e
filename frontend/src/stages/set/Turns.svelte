<script lang="ts">
  // What to turn at one corner, what a turn is worth, and what the car would read afterwards.
  import type { CornerView } from '$lib/api/client';
  import { link } from '$lib/router.svelte';
  import Afterwards from './Afterwards.svelte';
  import { SET } from './texts';
  import TurnLine from './TurnLine.svelte';

  type Props = {
    answer: CornerView;
    slug: string;
    title: string;
    now: string | undefined;
    onpick: (adjuster: string) => void;
  };
  let { answer, slug, title, now, onpick }: Props = $props();
</script>

<section aria-label={title}>
  <h2>{answer.sentence || title}</h2>
  <p class="soft">{answer.why_not || answer.reason}</p>
  {#if answer.expected.length}<Afterwards expected={answer.expected} />{/if}
  {#if answer.adjusters.length === 0}<a class="button" href="/cars/{slug}/plan/figures" use:link>{SET.toPlan}</a>{/if}
  {#each answer.adjusters as adjuster (adjuster.id)}
    <TurnLine
      {adjuster}
      turn={answer.turns.find((t) => t.adjuster === adjuster.id)}
      now={now === adjuster.id}
      onpick={() => onpick(adjuster.id)}
    />
  {/each}
</section>

<style>
  h2 {
    font-size: 1.125rem;
  }
  p {
    margin-bottom: 6px;
  }
</style>
