<script lang="ts">
  // The devices that the shop's door has let in, each to be let go by itself: a phone that was lost, or is somebody else's now.
  import { api, type Device } from '$lib/api/client';
  import { until } from '$lib/api/until';
  import { SHOP } from './texts';

  let devices = $state.raw<Device[] | null>(null);
  let why = $state('');
  $effect(() => until(api.devices, (found) => (devices = found)));

  async function letGo(id: string): Promise<void> {
    try {
      [devices, why] = [await api.letGo(id), ''];
    } catch (error) {
      why = (error as Error).message;
    }
  }
  const since = (at: number) =>
    new Date(at * 1000).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
</script>

{#if devices}
  <h2>{SHOP.devices}</h2>
  <p class="soft">{SHOP.letGoMeans}</p>
  {#if why}<p class="no" role="alert">{why}</p>{/if}
  <ul>
    {#each devices as device, i (i)}
      {@const words = SHOP.device(device.who, device.kind, since(device.at))}
      <li>
        <span>{words}</span>
        <button class="button" aria-label="{SHOP.letGo}: {words}" onclick={() => void letGo(device.id)}
          >{SHOP.letGo}</button
        >
      </li>
    {:else}<li class="soft">{SHOP.noDevices}</li>{/each}
  </ul>
{/if}

<style>
  h2 {
    margin: var(--gap-3) 0 0;
  }
  p {
    margin: 0;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    gap: var(--gap-2);
  }
  li {
    display: flex;
    gap: var(--gap-3);
    align-items: center;
    justify-content: space-between;
  }
</style>
