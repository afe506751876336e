<script lang="ts">
  // What the car does on its wheels in a sentence, the perches to turn for it, what they do, and what was learned of them.
  import type { CarView, StanceView } from '$lib/api/client';
  import type { Car } from '$lib/car.svelte';
  import PerchList from './PerchList.svelte';
  import Scales from './Scales.svelte';
  import { STANCE } from './texts';
  import WhatPerchesDo from './WhatPerchesDo.svelte';

  type Perch = StanceView['perches'][number];
  type Props = { car: Car; view: CarView; stance: StanceView; onturn: (perch: Perch) => void };
  let { car, view, stance, onturn }: Props = $props();
</script>

<section class="card" aria-label={STANCE.title}>
  {#each stance.says as line, i (i)}{#if i === 0}<h1>{line}</h1>{:else}<p class="no">{line}</p>{/if}{/each}
  {#if stance.why_not}<p>{stance.why_not}</p>{/if}
  {#if stance.short && !stance.why_not}<p class="no">{stance.short}</p>{/if}
  <Scales {view} {stance} />
  {#if stance.perches.length}<PerchList perches={stance.perches} {onturn} />{/if}
  {#if stance.corners[0]?.does_short.length}<WhatPerchesDo {car} {stance} />{/if}
</section>

<style>
  section {
    padding: 8px 14px;
    display: grid;
    gap: 4px;
  }
  h1 {
    font-size: 1.125rem;
    line-height: 1.2;
  }
</style>
