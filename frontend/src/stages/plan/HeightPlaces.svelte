<script lang="ts">
  // Where the ride heights are read: a feature at each corner, and where it is on the chassis.
  import { CORNER_WORDS, CORNERS } from '$lib/marks';
  import Card from '$parts/form/Card.svelte';
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import PlanFigure from './PlanFigure.svelte';
  import { theSheet } from './sheet.svelte';
  import { PLAN } from './texts';

  const { draft } = $derived(theSheet());
  const PARTS = { station: PLAN.station, offset: PLAN.offset, height: PLAN.asDrawn } as const;
</script>

<Card title={PLAN.places} soft={PLAN.placesSoft} label="">
  <Row cols={4} top>
    {#each CORNERS as c (c)}
      {@const place = draft.heights[c]}
      <Group title={CORNER_WORDS[c]}>
        <Text label={PLAN.placeName} name="{CORNER_WORDS[c]} height, feature" bind:value={place.name} />
        <Row cols={2}>
          {#each Object.entries(PARTS) as [part, label] (part)}
            <PlanFigure
              {label}
              name="{CORNER_WORDS[c]} height, {label}"
              bind:value={place[part as keyof typeof PARTS]}
              kind="length"
              at="heights.{c}.{part}"
            />
          {/each}
        </Row>
      </Group>
    {/each}
  </Row>
</Card>
