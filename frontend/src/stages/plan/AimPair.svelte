<script lang="ts">
  // The aim of one mark, and how far either side of it still does.
  import { markKind, spansOf } from './draft';
  import PlanFigure from './PlanFigure.svelte';
  import { theSheet } from './sheet.svelte';

  type Props = { mark: string; name: string };
  let { mark, name }: Props = $props();
  const sheet = theSheet();
  const aim = $derived(sheet.aims[mark]!);
  const both = $derived({ bare: true, kind: markKind(mark), spans: spansOf(sheet.draft, mark) });
  const overSpan = $derived(/toe$/.test(mark)); // a toe stays as it was typed: a length over its span
</script>

<div>
  <PlanFigure
    {...both}
    label="{name} aim"
    value={aim.aim}
    at="{sheet.aimPath}.{mark}.aim"
    as={aim.typed}
    onchange={(v, typed) => Object.assign(aim, { aim: v, typed: overSpan ? typed : '' })}
  />
  <PlanFigure
    {...both}
    label="{name} tolerance"
    value={aim.tolerance}
    at="{sheet.aimPath}.{mark}.tolerance"
    onchange={(v) => (aim.tolerance = v === null ? null : Math.abs(v))}
  />
</div>

<style>
  div {
    display: grid;
    grid-template-columns: 3fr 2fr;
    gap: 4px;
  }
</style>
