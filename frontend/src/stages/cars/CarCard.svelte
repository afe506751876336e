<script lang="ts">
  // One car of the workshop, and what waits for it in this browser.
  import type { CarLine, Standing } from '$lib/api/client';
  import { link } from '$lib/router.svelte';
  import { CARS } from './texts';

  type Props = { car: CarLine; waits: number; stands: Standing | undefined };
  let { car, waits, stands }: Props = $props();
  const day = $derived(
    stands && new Date(stands.at).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' }),
  );
</script>

<li>
  <a class="card" href="/cars/{car.slug}" use:link
    ><b>{car.name}</b><span>{car.about}</span>
    {#if stands}<p>
        {stands.judged ? CARS.stands(stands.holding, stands.judged) : CARS.noAims} <b>{CARS.next}</b>
        {stands.next}
      </p>{/if}
    <small
      >{CARS.entries(car.entries)}{#if day}<br />{CARS.last(day, stands!.who)}{/if}{#if waits}<br /><b class="no"
          >{CARS.waits(waits)}</b
        >{/if}</small
    ></a
  >
</li>

<style>
  a {
    display: grid;
    grid-template-columns: 1fr auto;
    color: var(--ink);
    text-decoration: none;
    border-left: 10px solid var(--layout);
    gap: 0 var(--gap-3);
  }
  a:hover {
    border-left-color: var(--paint);
  }
  a > b {
    font-size: 1.25rem;
  }
  p {
    grid-row: 3;
    grid-column: 1 / 3;
    margin-top: 4px;
  }
  span {
    grid-row: 2;
    color: var(--ink-soft);
  }
  small {
    color: var(--ink-soft);
    align-self: center;
    grid-row: 1 / 3;
    grid-column: 2;
    text-align: right;
  }
  @media (max-width: 700px) {
    a {
      grid-template-columns: 1fr;
    }
    small,
    span,
    p {
      grid-row: auto;
      grid-column: 1;
      text-align: left;
    }
  }
</style>
