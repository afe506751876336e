<script lang="ts">
  // Steering, loaded radius, camber and toe as drawn; and an example to begin from.
  import type { Linkage } from '$lib/api/client';
  import Choice from '$parts/form/Choice.svelte';
  import Row from '$parts/form/Row.svelte';
  import type { LinkagePoints } from './linkage-points.svelte';
  import PlanFigure from './PlanFigure.svelte';
  import { PLAN } from './texts';

  type Props = { held: LinkagePoints; linkage: Linkage };
  let { held, linkage }: Props = $props();
</script>

<Row cols={4} end>
  <Choice label={PLAN.steering} options={PLAN.steeringWays} bind:value={linkage.steering} />
  <PlanFigure
    label={PLAN.radius}
    bind:value={() => linkage.loaded_radius, (v) => (linkage.loaded_radius = v as number)}
    kind="length"
    at="{held.end}_linkage.loaded_radius"
  />
  <PlanFigure
    label={PLAN.camberDesign}
    bind:value={() => linkage.camber_deg ?? 0, (v) => (linkage.camber_deg = v ?? 0)}
    kind="angle"
  />
  <PlanFigure
    label={PLAN.toeDesign}
    bind:value={() => linkage.toe_deg ?? 0, (v) => (linkage.toe_deg = v ?? 0)}
    kind="angle"
  />
  <button type="button" class="button" onclick={() => void held.example()}>{PLAN.example}</button>
</Row>
