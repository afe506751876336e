<script lang="ts">
  // How the wheels of an end are held, and what hangs on that: chosen here, drawn beside it, its points and figures asked for at the tape.
  import Card from '$parts/form/Card.svelte';
  import Choice from '$parts/form/Choice.svelte';
  import Row from '$parts/form/Row.svelte';
  import LayoutTiles from '../LayoutTiles.svelte';
  import { BEGIN } from '../linkage-parts';
  import type { LinkagePoints } from '../linkage-points.svelte';
  import { DRAWN, PLAN } from '../texts';
  import type { PlanDesk } from './plan-desk.svelte';

  type Props = { desk: PlanDesk; held: LinkagePoints };
  let { desk, held }: Props = $props();
  type Part = keyof typeof BEGIN;
  const { linkage, layout } = $derived(held);
  const has: Record<Part, boolean> = $derived({
    coil: Boolean(linkage?.springs?.length && !linkage.rocker),
    rocker: Boolean(linkage?.rocker),
    bar: Boolean(linkage?.bar),
    shaft: Boolean(linkage?.shaft),
  });
  const parts = $derived(
    (Object.keys(BEGIN) as Part[]).filter((p) => !(layout?.axle && (p === 'rocker' || p === 'shaft'))),
  );
  const STANDS = ['upright', 'lower', 'upper', 'arm', 'hinge'];
  const stands = $derived(
    linkage
      ? [
          ...(linkage.rocker ? [{ word: DRAWN.rod, of: linkage.rocker.rod }] : []),
          ...(linkage.bar ? [{ word: DRAWN.link, of: linkage.bar.link }] : []),
          ...(has.coil && !layout?.axle ? [{ word: DRAWN.foot_, of: linkage.springs![0]!.ends[1]! }] : []),
        ]
      : [],
  );
  function turn(part: Part): void {
    if (!linkage) return;
    if (!has[part]) BEGIN[part](linkage, Boolean(layout?.axle));
    else if (part === 'bar' || part === 'shaft') linkage[part] = null;
    else [linkage.springs, linkage.rocker] = [[], null];
    if (part === 'coil' && has.coil) linkage.rocker = null;
    desk.turnTo(held.end);
  }
</script>

<Card title="{PLAN.axles[held.end]}: {PLAN.layout.toLowerCase()}" label="">
  <LayoutTiles {held} />
  {#if linkage}
    <Row cols={2}>
      <Choice label={PLAN.steering} options={PLAN.steeringWays} bind:value={linkage.steering} />
      {#each stands as { word, of } (word)}
        <Choice
          label={DRAWN.standsOn(word)}
          options={STANDS.includes(of.on) ? STANDS : [of.on, ...STANDS]}
          bind:value={of.on}
        />
      {/each}
    </Row>
    <p role="group" aria-label={DRAWN.partsTitle}>
      {#each parts as part (part)}
        <button type="button" class="button" aria-pressed={has[part]} onclick={() => turn(part)}
          >{DRAWN.begin[part]}</button
        >
      {/each}
      <button type="button" class="button" onclick={() => void held.example()}>{PLAN.example}</button>
    </p>
  {/if}
</Card>

<style>
  p {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    margin: 0;
  }
  .button {
    font-weight: 400;
  }
  [aria-pressed='true'] {
    background: var(--layout);
    color: var(--paper);
    font-weight: 700;
  }
</style>
