<script lang="ts">
  // One spring with its damper: what it is fastened to, rates and lengths.
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import type { End } from './draft';
  import { COIL, setOfThree, type Spring } from './linkage-parts';
  import PlanFigure from './PlanFigure.svelte';
  import { SPRINGS } from './texts';

  type Props = { end: End; spring: Spring; ontake: () => void };
  let { end, spring, ontake }: Props = $props();
</script>

<Group title={spring.name}>
  <Row cols={5}>
    <Text label={SPRINGS.name} bind:value={spring.name} />
    {#each spring.ends as one, i (i)}
      <Text label={SPRINGS.point} list="{end}-points" bind:value={one.point} />
      <Text label={SPRINGS.on} list="stands" bind:value={one.on} />
    {/each}
  </Row>
  <Row cols={5}>
    {#each COIL as part (part)}
      <PlanFigure
        label={SPRINGS[part]}
        name="{spring.name} {end}, {SPRINGS[part]}"
        value={spring[part] ?? null}
        kind={part === 'rate' ? 'rate' : 'length'}
        at="{end}_linkage.springs.{spring.name}.{part}"
        onchange={(v) => Object.assign(spring, { [part]: part === 'seat' ? (v ?? 0) : v })}
      />
    {/each}
    {#each SPRINGS.helper as word, n (word)}
      <PlanFigure
        label={word}
        name="{spring.name} {end}, {word}"
        value={spring.helper?.[n] ?? null}
        kind={n === 0 ? 'rate' : 'length'}
        onchange={(v) => (spring.helper = setOfThree(spring.helper, n, v))}
      />
    {/each}
    <button type="button" class="button" aria-label="{SPRINGS.out} {spring.name}" onclick={ontake}>{SPRINGS.out}</button
    >
  </Row>
</Group>
