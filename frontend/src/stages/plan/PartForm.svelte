<script lang="ts">
  // Rocker, bar or halfshaft: the points it has, and the far end of its rod or link with what that stands on.
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import type { End } from './draft';
  import PlanFigure from './PlanFigure.svelte';
  import { theSheet } from './sheet.svelte';
  import { PARTS, PLAN } from './texts';

  type Kind = 'rocker' | 'bar' | 'shaft';
  type Held = { first: string; second: string; push?: string; arm?: string } | Plunging;
  type Plunging = { inner: string; outer: string; pushed?: number | null; pulled?: number | null };
  type Props = { end: End; part: Kind; held: Held; far?: { point: string; on: string }; ontake: () => void };
  let { end, part, held, far, ontake }: Props = $props();
  const sheet = theSheet();
  const OWN = {
    rocker: ['first', 'second', 'push'],
    bar: ['first', 'second', 'arm'],
    shaft: ['inner', 'outer'],
  } as const;
  const points = $derived(held as Record<string, string>);
  const farWord = $derived(part === 'rocker' ? PARTS.rod : PARTS.link);
  const name = (word: string) => `${PLAN.axles[end]}, ${word}`;
  const problem = $derived(sheet.at(`${end}_linkage.${part}`));
</script>

<Group title={PARTS[part]}>
  <Row>
    {#each OWN[part] as own (own)}
      <Text label={PARTS[own]} name={name(PARTS[own])} list="{end}-points" bind:value={points[own]!} />
    {/each}
    {#if part === 'shaft'}
      {#each ['pushed', 'pulled'] as const as way (way)}
        <PlanFigure
          label={PARTS.plunge[way]}
          bind:value={() => (held as Plunging)[way] ?? null, (v) => ((held as Plunging)[way] = v)}
          kind="length"
        />
      {/each}
    {/if}
    {#if far}
      <Text label={farWord} name={name(farWord)} list="{end}-points" bind:value={far.point} />
      <Text label={PARTS.on} name={name(PARTS.on)} list="stands" bind:value={far.on} />
    {/if}
    <button type="button" class="button" aria-label="{PARTS.out} {PARTS[part]}, {PLAN.axles[end]}" onclick={ontake}
      >{PARTS.out}</button
    >
  </Row>
  {#if problem}<small class="no" role="alert">{problem}</small>{/if}
</Group>
