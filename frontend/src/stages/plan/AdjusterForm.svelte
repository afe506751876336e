<script lang="ts">
  // One adjuster: its name, its corner, what it moves, and its threads, shims, perch, slide or eccentric.
  import { CORNER_WORDS } from '$lib/marks';
  import Check from '$parts/form/Check.svelte';
  import Choice from '$parts/form/Choice.svelte';
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import AdjusterMoves from './AdjusterMoves.svelte';
  import { type AdjusterDraft, kindOf } from './draft';
  import PlanFigure from './PlanFigure.svelte';
  import { theSheet } from './sheet.svelte';
  import { PLAN } from './texts';
  import ThreadEnd from './ThreadEnd.svelte';

  type Props = { a: AdjusterDraft; ontake: () => void };
  let { a, ontake }: Props = $props();
  const sheet = theSheet();
  const path = $derived(`adjusters.${a.id}`);
  const SHIMS = { thickness: 'length', fitted: 'number', most: 'number' } as const;
  const PERCH = {
    pitch_mm_per_turn: 'pitch',
    room_up: 'length',
    room_down: 'length',
    spring_per_wheel: 'number',
  } as const;
  const SLIDE = { mark: 'length', at: 'length', most: 'length' } as const;
  const CAM = { throw: 'length', mark_deg: 'angle', most_deg: 'angle', at_deg: 'angle' } as const;
  const slide = Object.keys(SLIDE) as (keyof typeof SLIDE)[];
  const cam = Object.keys(CAM) as (keyof typeof CAM)[];
  const shims = Object.keys(SHIMS) as (keyof typeof SHIMS)[];
  const perch = Object.keys(PERCH) as (keyof typeof PERCH)[];
</script>

<Group title={PLAN.kind[kindOf(a)]}>
  <Row cols={2} end>
    <Text label={PLAN.adjusterName} bind:value={a.name} problem={sheet.at(`${path}.name`)} />
    <Choice label={PLAN.corner} options={CORNER_WORDS} bind:value={a.corner} />
    <button type="button" class="button" onclick={ontake} aria-label="{PLAN.remove} {a.name}">{PLAN.remove}</button>
  </Row>
  {#if !a.perch}<AdjusterMoves {a} />{/if}
  {#each a.ends ?? [] as end, i (i)}<ThreadEnd {end} path="{path}.ends.{i}" />{/each}
  {#if kindOf(a) === 'rod_end'}<Check label={PLAN.half} bind:checked={a.half_turns_only} />{/if}
  {#if a.shims}
    <Row cols={5} top>
      {#each shims as part (part)}
        <PlanFigure label={PLAN.stack[part]} bind:value={a.shims[part]} kind={SHIMS[part]} at="{path}.shims.{part}" />
      {/each}
    </Row>
  {/if}
  {#if a.perch}
    <Row cols={5} top>
      {#each perch as part (part)}
        <PlanFigure label={PLAN.perch[part]} bind:value={a.perch[part]} kind={PERCH[part]} at="{path}.perch.{part}" />
      {/each}
    </Row>
  {/if}
  {#if a.slide}
    <Row cols={5} top>
      {#each slide as part (part)}
        <PlanFigure label={PLAN.slide[part]} bind:value={a.slide[part]} kind={SLIDE[part]} at="{path}.slide.{part}" />
      {/each}
    </Row>
  {/if}
  {#if a.cam}
    <Row cols={5} top>
      {#each cam as part (part)}
        <PlanFigure label={PLAN.cam[part]} bind:value={a.cam[part]} kind={CAM[part]} at="{path}.cam.{part}" />
      {/each}
    </Row>
  {/if}
</Group>
