<script lang="ts">
  // Where the marks of the frame are that the strings are held against: stepped bars and tapered rails are told by their places.
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import { CORNER_WORDS, CORNERS } from '$lib/marks';
  import type { Corner } from '$lib/api/client';
  import type { Figure } from './draft';
  import PlanFigure from './PlanFigure.svelte';
  import { theSheet } from './sheet.svelte';
  import { PLAN } from './texts';

  const { draft } = $derived(theSheet());
  const put = (c: Corner, i: 0 | 1, value: number | null) => {
    const at: [Figure, Figure] = [...(draft.ways.marks[c] ?? [null, null])];
    at[i] = value;
    draft.ways.marks[c] = at;
  };
</script>

<Group title={PLAN.marksAt}>
  <Row cols={4}>
    {#each CORNERS as c (c)}
      <PlanFigure
        label="{CORNER_WORDS[c]}, {PLAN.station.toLowerCase()}"
        bind:value={() => draft.ways.marks[c]?.[0] ?? null, (v) => put(c, 0, v)}
        kind="length"
        at="ways.marks.{c}"
      />
      <PlanFigure
        label="{CORNER_WORDS[c]}, {PLAN.offset.toLowerCase()}"
        bind:value={() => draft.ways.marks[c]?.[1] ?? null, (v) => put(c, 1, v)}
        kind="length"
        at="ways.marks.{c}"
      />
    {/each}
  </Row>
</Group>
