<script lang="ts">
  // The way from anywhere to anywhere: every stage, the log, the other cars, practice; on a narrow page it says where one is, and who measures stands in it too.
  import type { Car } from '$lib/car.svelte';
  import { link, router } from '$lib/router.svelte';
  import { signAs, who } from '$lib/shelf';
  import { FRAME, STAGES } from './texts';

  type Props = { car: Car | undefined; base: string; here: string };
  let { car, base, here }: Props = $props();
  let open = $state(false);
  let whole = $state<HTMLElement>();
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
    { name: FRAME.shop, path: '/shop', stage: undefined },
  ]);
  const now = $derived(places.find((p) => p.stage === here)?.name ?? FRAME.menu);
  $effect(() => {
    void router.path;
    open = false;
  });
</script>

<svelte:window onkeydown={(e) => e.key === 'Escape' && (open = false)} />
<svelte:document onpointerdown={(e) => open && !whole?.contains(e.target as Node) && (open = false)} />

<div bind:this={whole}>
  <button
    type="button"
    class="button"
    aria-expanded={open}
    aria-controls="rule-menu"
    title={FRAME.menu}
    onclick={() => (open = !open)}><span>{now}</span> ▾</button
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
    flex: none;
    padding: 10px 10px 6px 0;
  }
  button {
    min-width: var(--touch);
    padding: 0 4px;
  }
  @media (min-width: 1001px) {
    button:not([aria-expanded='true']) {
      background: none;
      border-color: transparent;
    }
    /* Where one is stands on the rule. */
    span {
      position: absolute;
      width: 1px;
      height: 1px;
      overflow: hidden;
      clip-path: inset(50%);
    }
    label {
      display: none;
    }
  }
  @media (max-width: 1000px) {
    div {
      margin-left: auto;
      padding: 8px 12px 6px 0;
    }
    button {
      padding: 0 var(--gap-3);
    }
  }
  nav:not([hidden]) {
    position: absolute;
    z-index: 9;
    left: 0;
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
  @media (max-width: 1000px) {
    nav:not([hidden]) {
      left: auto;
      right: 12px;
    }
  }
  label {
    display: grid;
    gap: 4px;
    padding: 8px 16px 12px;
    color: var(--ink-soft);
    font-size: var(--type-small);
  }
</style>
