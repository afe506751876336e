<script lang="ts">
  // What an adjuster moves in the linkage, which way, and what locks it.
  import { isFront } from '$lib/marks';
  import Choice from '$parts/form/Choice.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import { chooseMove, chosenMove, way, wayOf } from './adjuster-moves';
  import type { AdjusterDraft } from './draft';
  import { theSheet } from './sheet.svelte';
  import { PLAN } from './texts';

  type Props = { a: AdjusterDraft; cols?: 2 | 5 };
  let { a, cols = 5 }: Props = $props();
  const sheet = theSheet();
  const end = $derived(isFront(a.corner) ? 'front' : 'rear');
  const layout = $derived(sheet.layout(end));
  const prefix = $derived(layout?.axle ? end : a.corner);
  const choices = $derived({
    ...Object.fromEntries((layout?.members ?? []).map((m) => [`=${prefix}.${m}`, `${m}, ${PLAN.longer}`])),
    ...Object.fromEntries((layout?.needed ?? []).map((p) => [`.${prefix}.${p}`, p.replaceAll('.', ' ')])),
  });
</script>

{#if layout}
  <Row {cols} top title={PLAN.movesSoft}>
    <Choice
      label={PLAN.moves}
      name={PLAN.moves}
      options={choices}
      empty={PLAN.movesNothing}
      bind:value={() => chosenMove(a), (v) => chooseMove(a, v)}
      problem={sheet.at(`adjusters.${a.id}.moves`)}
    />
    {#if a.moves?.direction}
      <Choice
        label={PLAN.direction}
        name={PLAN.direction}
        options={PLAN.directions}
        bind:value={() => wayOf(a) as 'up', (v) => (a.moves!.direction = way(v, a.corner))}
      />
    {/if}
    <Text label={PLAN.lock} bind:value={a.lock} />
  </Row>
{/if}
