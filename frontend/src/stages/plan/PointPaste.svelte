<script lang="ts">
  // The points drawn, and points from and to a spreadsheet.
  import type { Layout, Linkage } from '$lib/api/client';
  import Text from '$parts/form/Text.svelte';
  import LinkageDrawing from './LinkageDrawing.svelte';
  import type { LinkagePoints } from './linkage-points.svelte';
  import { PLAN } from './texts';

  type Props = { held: LinkagePoints; linkage: Linkage; layout: Layout };
  let { held, linkage, layout }: Props = $props();
  let text = $state('');
  const slug = $derived(held.sheet.car?.slug);
  const take = async () => {
    if (await held.take(text)) text = '';
  };
</script>

<div>
  <LinkageDrawing
    points={held.sheet.draft.points}
    {layout}
    {linkage}
    prefix={held.prefix}
    lit={held.lit}
    label={PLAN.drawn(PLAN.axles[held.end])}
    onpick={(name) => (held.lit = name)}
  />
  <Text label={PLAN.paste} bind:value={text} rows={3} max={100000} hint={PLAN.pasteHint(held.sheet.inches)} />
  <p class="soft">{PLAN.pasteSoft}</p>
  {#if held.refusal}<p class="no" role="alert">{held.refusal}</p>{/if}
  <p>
    <button type="button" class="button" onclick={() => void take()} disabled={!text.trim()}>{PLAN.take}</button>
    {#if slug}<a class="button" href="/api/cars/{slug}/points.csv" download="{slug}.points.csv">{PLAN.save_csv}</a>{/if}
  </p>
</div>

<style>
  div {
    display: grid;
    gap: var(--gap-2);
    position: sticky;
    top: 0;
  }
</style>
