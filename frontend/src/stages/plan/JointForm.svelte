<script lang="ts">
  // How far one joint may work: of which member, at which end, about which stud.
  import Choice from '$parts/form/Choice.svelte';
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import type { End } from './draft';
  import { type Joint, setOfThree } from './linkage-parts';
  import PlanFigure from './PlanFigure.svelte';
  import { theSheet } from './sheet.svelte';
  import { PARTS, PLAN } from './texts';

  type Props = { end: End; joint: Joint; i: number; members: string[]; ontake: () => void };
  let { end, joint, i, members, ontake }: Props = $props();
  const sheet = theSheet();
  const title = $derived(`${joint.member} ${joint.at}`);
  const path = $derived(`${end}_linkage.joints.${i}`);
</script>

<Group {title}>
  <Row>
    <Choice label={PARTS.member} options={members} bind:value={joint.member} problem={sheet.at(`${path}.member`)} />
    <Choice label={PARTS.at} options={PARTS.ends} bind:value={joint.at} />
    <PlanFigure
      label={PARTS.limit}
      name="{PLAN.axles[end]}, {title}, {PARTS.limit}"
      bind:value={() => joint.limit_deg, (v) => (joint.limit_deg = v ?? 0)}
      kind="angle"
      at="{path}.limit_deg"
    />
    {#each PARTS.stud as word, axis (word)}
      <PlanFigure
        label={word}
        value={joint.stud?.[axis] ?? null}
        kind="number"
        onchange={(v) => (joint.stud = setOfThree(joint.stud, axis, v))}
      />
    {/each}
    <button type="button" class="button" aria-label="{PARTS.out} {title}, {PLAN.axles[end]}" onclick={ontake}
      >{PARTS.out}</button
    >
  </Row>
</Group>
