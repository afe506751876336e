<script lang="ts">
  // The stages along the rule.
  import { link } from '$lib/router.svelte';
  import { FRAME, STAGES } from './texts';

  type Props = { base: string; progress: Readonly<Record<string, number | undefined>>; here: string };
  let { base, progress, here }: Props = $props();
  let wide = $state(900);
  const inch = $derived(Math.max(Math.min(128, (wide - 4) / STAGES.length), 0)); // on the page
  const TICKS = 16;
  const tick = (i: number) => (i % TICKS === 0 ? 26 : i % (TICKS / 2) === 0 ? 17 : i % (TICKS / 4) === 0 ? 12 : 8);
  const titleOf = ({ name, path, measures }: (typeof STAGES)[number]) => {
    const part = progress[name];
    const held = part === undefined ? measures : FRAME.held(part, measures);
    return path ? held : held ? `${held} · ${FRAME.later}` : FRAME.later;
  };
</script>

<nav aria-label={FRAME.rule} bind:clientWidth={wide}>
  <svg width={inch * STAGES.length + 4} height="64" aria-hidden="true">
    {#each STAGES as stage, s (stage.name)}
      <rect x={2 + s * inch} y="56" width={inch * (progress[stage.name] ?? 0)} height="7" />
    {/each}
    {#each { length: STAGES.length * TICKS + 1 }, i}
      <path data-inch={i % TICKS === 0 || undefined} d="M{2 + (i * inch) / TICKS} 63V{63 - tick(i)}" />
    {/each}
  </svg>
  {#each STAGES as stage, s (stage.name)}
    {@const title = titleOf(stage)}
    {@const left = `${8 + s * inch}px`}
    {#if stage.path}
      {@const current = here === stage.path ? 'page' : undefined}
      <a style:left href="{base}/{stage.path}" use:link aria-current={current} {title}>{stage.name}</a>
    {:else}<span style:left {title}>{stage.name}</span>{/if}
  {/each}
</nav>

<style>
  nav {
    position: relative;
    flex: none;
    width: 900px;
    max-width: 900px;
    overflow: hidden;
  }
  svg {
    position: absolute;
    inset: 0;
  }
  a,
  span {
    position: absolute;
    top: 0;
    height: 44px;
    padding-top: 8px;
    min-width: 90px;
    color: var(--ink);
    text-decoration: none;
    font-size: 0.95rem;
  }
  span {
    color: var(--ink-soft);
  }
  [aria-current] {
    font-weight: 700;
    text-decoration: underline;
    text-decoration-thickness: 3px;
    text-decoration-color: var(--paint);
    text-underline-offset: 5px;
  }
  path {
    stroke: var(--steel-dark);
    stroke-width: 1;
  }
  [data-inch] {
    stroke-width: 2;
  }
  rect {
    fill: var(--paint);
    opacity: 0.9;
  }
  @media (max-width: 1200px) {
    nav {
      flex: 1 1 0;
      width: auto;
    }
  }
  @media (max-width: 1000px) {
    nav {
      display: none;
    }
  }
</style>
