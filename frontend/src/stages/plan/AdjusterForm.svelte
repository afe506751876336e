<script lang="ts">
  // One adjuster: its name, its corner, what it moves, and its threads, shims, perch, torsion bar, slide or eccentric.
  import { CORNER_WORDS } from '$lib/marks';
  import Check from '$parts/form/Check.svelte';
  import Choice from '$parts/form/Choice.svelte';
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import { FIGURES, PART_WORDS } from './adjuster-moves';
  import AdjusterMoves from './AdjusterMoves.svelte';
  import { type AdjusterDraft, FIGURE_PARTS, type FigurePart, kindOf, raises } from './draft';
  import PlanFigure from './PlanFigure.svelte';
  import { theSheet } from './sheet.svelte';
  import { PLAN } from './texts';
  import ThreadEnd from './ThreadEnd.svelte';

  type Props = { a: AdjusterDraft; ontake: () => void };
  let { a, ontake }: Props = $props();
  const sheet = theSheet();
  const path = $derived(`adjusters.${a.id}`);
  const parts = $derived(FIGURE_PARTS.filter((part) => a[part]));
  const of = (part: FigurePart) => a[part] as unknown as Record<string, number | null>;
</script>

<Group title={PLAN.kind[kindOf(a)]}>
  <Row cols={2} end>
    <Text label={PLAN.adjusterName} bind:value={a.name} problem={sheet.at(`${path}.name`)} />
    <Choice label={PLAN.corner} options={CORNER_WORDS} bind:value={a.corner} />
    <button type="button" class="button" onclick={ontake} aria-label="{PLAN.remove} {a.name}">{PLAN.remove}</button>
  </Row>
  {#if !raises(kindOf(a))}<AdjusterMoves {a} />{/if}
  {#each a.ends ?? [] as end, i (i)}<ThreadEnd {end} path="{path}.ends.{i}" />{/each}
  {#if kindOf(a) === 'rod_end'}<Check label={PLAN.half} bind:checked={a.half_turns_only} />{/if}
  {#each parts as part (part)}
    <Row cols={5} top>
      {#each Object.entries(FIGURES[part]) as [name, kind] (name)}
        <PlanFigure
          label={PART_WORDS[part][name]!}
          bind:value={() => of(part)[name] ?? null, (v) => (of(part)[name] = v)}
          {kind}
          at="{path}.{part}.{name}"
        />
      {/each}
    </Row>
  {/each}
</Group>
