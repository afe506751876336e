<script lang="ts">
  // The chassis on its stands: where every hub must sit, what the ones that were set will give, and the rods in place of the dampers.
  import type { Corner, StanceView } from '$lib/api/client';
  import { CORNER_WORDS } from '$lib/marks';
  import Card from '$parts/form/Card.svelte';
  import Table from '$parts/form/Table.svelte';
  import Rods from './Rods.svelte';
  import { STANDS } from './texts';

  type Props = { stance: StanceView; onpick: (corner: Corner) => void };
  let { stance, onpick }: Props = $props();
</script>

<Card title={STANDS.hubs} soft={STANDS.hubsSoft}>
  {#each stance.stand_says as line, i (i)}<p>{line}</p>{/each}
  {#if stance.hubs.length}
    <Table head={['', STANDS.wanted, STANDS.read, STANDS.gives]} stacked>
      {#each stance.hubs as hub (hub.corner)}
        <tr>
          <th scope="row"
            ><button type="button" onclick={() => onpick(hub.corner)}>{CORNER_WORDS[hub.corner]}</button></th
          >
          <td class="fig big" data-name={STANDS.wanted}>{hub.wanted}</td>
          <td class="fig" data-name={STANDS.read}>{hub.read || STANDS.unread}</td>
          <td class:no={hub.off} data-name={STANDS.gives}>{hub.gives}</td>
        </tr>
      {/each}
    </Table>
  {/if}
  <p class="soft">{STANDS.hubHow}</p>
  <p class="caution">{STANDS.caution}</p>
</Card>
<Card title={STANDS.rods} soft={STANDS.rodsSoft}>
  <Rods {stance} />
  <p class="soft">{STANDS.strength}</p>
</Card>

<style>
  button {
    background: none;
    border: 0;
    padding: 0;
    min-height: var(--touch);
    min-width: var(--touch);
    color: var(--layout);
    text-decoration: underline;
    cursor: pointer;
  }
  .big {
    font-size: 1.125rem;
  }
</style>
