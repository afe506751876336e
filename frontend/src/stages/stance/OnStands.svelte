<script lang="ts">
  // The chassis on its stands: where every hub must sit, what the ones that were set will give, and the rods in place of the dampers.
  import type { Corner, StanceView } from '$lib/api/client';
  import { CORNER_WORDS } from '$lib/marks';
  import { STANDS } from './texts';

  type Props = { stance: StanceView; onpick: (corner: Corner) => void };
  let { stance, onpick }: Props = $props();
</script>

<section class="card" aria-label={STANDS.hubs}>
  <h2>{STANDS.hubs}</h2>
  <p class="soft">{STANDS.hubsSoft}</p>
  {#each stance.stand_says as line (line)}<p class="say">{line}</p>{/each}
  {#if stance.hubs.length}
    <table>
      <thead
        ><tr
          ><th></th><th scope="col">{STANDS.wanted}</th><th scope="col">{STANDS.read}</th><th scope="col"
            >{STANDS.gives}</th
          ></tr
        ></thead
      >
      <tbody
        >{#each stance.hubs as hub (hub.corner)}<tr
            ><th scope="row"
              ><button type="button" onclick={() => onpick(hub.corner)}>{CORNER_WORDS[hub.corner]}</button></th
            ><td class="fig big">{hub.wanted}</td><td class="fig">{hub.read || STANDS.unread}</td><td
              data-off={hub.off || undefined}>{hub.gives}</td
            ></tr
          >{/each}</tbody
      >
    </table>
  {/if}
  <p class="soft">{STANDS.hubHow}</p>
  <p class="caution">{STANDS.caution}</p>
</section>
<section class="card" aria-label={STANDS.rods}>
  <h2>{STANDS.rods}</h2>
  <p class="soft">{STANDS.rodsSoft}</p>
  <div class="scroll">
    <table>
      <thead
        ><tr
          ><th></th>{#each Object.values(STANDS.columns) as name (name)}<th scope="col">{name}</th>{/each}<th
            scope="col">{STANDS.rate}</th
          ><th scope="col">{STANDS.ratio}</th></tr
        ></thead
      >
      <tbody>
        {#each stance.corners as c (c.corner)}
          {#each c.rods as rod (rod.name)}
            <tr
              ><th scope="row">{CORNER_WORDS[c.corner]} <small>{rod.name}</small></th
              >{#each Object.keys(STANDS.columns) as key (key)}<td class="fig" class:big={key === 'at_wanted'}
                  >{rod[key as keyof typeof STANDS.columns] || STANDS.unknown}</td
                >{/each}<td class="fig"
                >{rod.rate || STANDS.unknown}{#if rod.rough}<small> {STANDS.rough} {rod.rough}</small>{/if}</td
              ><td class="fig">{rod.ratio || STANDS.unknown}</td></tr
            >
          {:else}<tr><th scope="row">{CORNER_WORDS[c.corner]}</th><td colspan="7" class="soft">{STANDS.none}</td></tr
            >{/each}
        {/each}
      </tbody>
    </table>
  </div>
  <p class="soft">{STANDS.strength}</p>
</section>

<style>
  section {
    padding: 8px 14px;
  }
  h2 {
    font-size: 1.0625rem;
  }
  .say {
    font-size: 0.9375rem;
  }
  .scroll {
    overflow: auto;
  }
  table {
    border-collapse: collapse;
    width: 100%;
    font-size: 0.9375rem;
  }
  th {
    text-align: left;
    font-weight: 400;
  }
  th button {
    background: none;
    border: 0;
    padding: 0;
    min-height: 36px;
    color: var(--layout);
    text-decoration: underline;
    cursor: pointer;
  }
  thead th {
    color: var(--ink-soft);
    font-size: 0.8125rem;
    text-align: right;
    padding-left: 8px;
  }
  td {
    text-align: right;
    padding-left: 8px;
    white-space: nowrap;
  }
  td[colspan] {
    text-align: left;
  }
  .big {
    font-size: 1.125rem;
  }
  small {
    color: var(--ink-soft);
    font-size: 0.8125rem;
    display: block;
    line-height: 1.1;
  }
  tbody tr {
    border-top: 1px solid var(--edge);
    height: 34px;
  }
  [data-off] {
    color: var(--rust);
    font-weight: 700;
  }
  .caution {
    background: #fff4cf;
    border-left: 6px solid var(--rust);
    padding: 2px 8px;
    font-size: 0.9375rem;
  }
  .soft {
    font-size: 0.8125rem;
  }
</style>
