<script lang="ts">
  // The way through the job: a steel rule, one inch a stage; paint on its edge shows how much of each stage holds.
  import type { Car } from '$lib/car.svelte';
  import { link } from '$lib/router.svelte';
  import RuleMenu from './RuleMenu.svelte';
  import RuleSide from './RuleSide.svelte';
  import RuleStages from './RuleStages.svelte';
  import { FRAME } from './texts';

  type Props = { car?: Car | undefined; here?: string };
  let { car, here = '' }: Props = $props();
  const base = $derived(car ? `/cars/${car.slug}` : '');
</script>

<header class="noprint" data-bare={!car || undefined}>
  <a class="mark" href={base || '/'} use:link>
    {FRAME.product}<small>{car ? (car.view?.plan.name ?? '') : FRAME.tagline}</small>
  </a>
  <RuleMenu {car} {base} {here} />
  {#if car}<RuleStages {base} progress={{ ...car.ahead, ...car.view?.progress }} {here} />{/if}
  <RuleSide {car} {base} {here} />
</header>

<style>
  header {
    height: var(--rule);
    background: linear-gradient(var(--rule-top), var(--rule-bottom));
    border-bottom: 2px solid var(--steel-core);
    display: flex;
    align-items: stretch;
  }
  .mark {
    flex: none;
    width: 140px;
    padding: 9px 0 9px 14px;
    font-weight: 700;
    font-size: 1.2rem;
    line-height: 1.1;
    color: var(--ink);
    text-decoration: none;
  }
  small {
    display: block;
    font-weight: 400;
    font-size: var(--type-small);
    color: var(--ink-soft);
    margin-top: 4px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    max-width: 100%;
  }
  [data-bare] .mark {
    width: auto;
  }
  @media (max-width: 1000px) {
    header {
      height: auto;
      min-height: var(--rule);
      flex-wrap: wrap;
    }
    [data-bare] small {
      display: none;
    }
    .mark {
      width: auto;
      min-width: 0;
      max-width: 60%;
    }
  }
</style>
