<script lang="ts">
  // On a narrow page: where one is, and the way to every stage, the log and the other cars; who measures stands in it too.
  import type { Car } from '$lib/car.svelte';
  import { link, router } from '$lib/router.svelte';
  import { signAs, who } from '$lib/shelf';
  import { FRAME, STAGES } from './texts';

  type Props = { car: Car | undefined; base: string; here: string };
  let { car, base, here }: Props = $props();
  let open = $state(false);
  let name = $state(who());
  const places = $derived([
    ...(car
      ? [
          { name: FRAME.walk, path: base, stage: '' },
          ...STAGES.filter((s) => s.path).map((s) => ({ name: s.name, path: `${base}/${s.path}`, stage: s.path })),
          { name: FRAME.log, path: `${base}/log`, stage: 'log' },
          { name: FRAME.wall, path: `${base}/wall`, stage: 'wall' },
        ]
      : []),
    { name: FRAME.cars, path: '/', stage: car ? undefined : '' },
    { name: FRAME.practice, path: '/practice', stage: undefined },
  ]);
  const now = $derived(places.find((p) => p.stage === here)?.name ?? FRAME.menu);
  $effect(() => {
    void router.path;
    open = false;
  });
</script>

<svelte:window onkeydown={(e) => e.key === 'Escape' && (open = false)} />

<div>
  <button type="button" class="button" aria-expanded={open} aria-controls="rule-menu" onclick={() => (open = !open)}
    >{now} ▾</button
  >
  <nav id="rule-menu" aria-label={FRAME.menu} hidden={!open}>
    {#each places as place (place.path)}
      <a href={place.path} use:link aria-current={place.stage === here ? 'page' : undefined}>{place.name}</a>
    {/each}
    <label>
      {FRAME.who}
      <input class="field" bind:value={name} onchange={() => signAs(name)} maxlength="80" />
    </label>
  </nav>
</div>

<style>
  div {
    position: relative;
    margin-left: auto;
    padding: 8px 12px 6px 0;
  }
  nav:not([hidden]) {
    position: absolute;
    z-index: 9;
    right: 12px;
    top: 56px;
    min-width: 220px;
    background: var(--card);
    border: 1px solid var(--steel-dark);
    border-radius: var(--round);
    box-shadow: 0 6px 24px var(--steel-dark);
    display: grid;
  }
  a {
    min-height: 48px;
    padding: 12px 16px;
    color: var(--ink);
    text-decoration: none;
    font-size: 1.0625rem;
    border-bottom: 1px solid var(--edge);
  }
  [aria-current] {
    font-weight: 700;
    box-shadow: inset 6px 0 var(--paint);
  }
  label {
    display: grid;
    gap: 4px;
    padding: 8px 16px 12px;
    color: var(--ink-soft);
    font-size: var(--type-small);
  }
</style>
