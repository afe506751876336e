<script lang="ts">
  // One torsion bar: the arm it works on, its rate, its splines and its fine adjuster.
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import type { End } from './draft';
  import type { Torsion } from './linkage-parts';
  import PlanFigure from './PlanFigure.svelte';
  import { theSheet } from './sheet.svelte';
  import { PARTS, PLAN } from './texts';

  type Props = { end: End; bar: Torsion; i: number; ontake: () => void };
  let { end, bar, i, ontake }: Props = $props();
  const sheet = theSheet();
  const name = (word: string) => `${PLAN.axles[end]}, ${bar.name}, ${word}`;
</script>

<Group title={bar.name}>
  <Row>
    <Text label={PARTS.name} bind:value={bar.name} />
    <Text
      label={PARTS.onArm}
      name="{PLAN.axles[end]}, {PARTS.onArm}"
      list="stands"
      bind:value={bar.arm}
      problem={sheet.at(`${end}_linkage.torsions.${i}.arm`)}
    />
    <PlanFigure
      label={PARTS.rate}
      name={name(PARTS.rate)}
      bind:value={() => bar.rate ?? null, (v) => (bar.rate = v)}
      kind="torsion"
    />
    <PlanFigure label={PARTS.splinesIn} bind:value={() => bar.inner ?? null, (v) => (bar.inner = v)} kind="number" />
    <PlanFigure label={PARTS.splinesOut} bind:value={() => bar.outer ?? null, (v) => (bar.outer = v)} kind="number" />
    <PlanFigure label={PARTS.fine} bind:value={() => bar.fine_deg ?? 0, (v) => (bar.fine_deg = v ?? 0)} kind="angle" />
    <button type="button" class="button" aria-label="{PARTS.out} {bar.name}, {PLAN.axles[end]}" onclick={ontake}
      >{PARTS.out}</button
    >
  </Row>
</Group>
