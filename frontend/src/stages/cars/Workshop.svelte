<script lang="ts">
  // The whole workshop as one file: saved, and brought in.
  import { api } from '$lib/api/client';
  import Card from '$parts/form/Card.svelte';
  import { CARS } from './texts';

  type Props = { onbrought: () => void };
  let { onbrought }: Props = $props();
  let brought = $state.raw<string[]>([]);

  async function bringIn(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
    const field = event.currentTarget;
    const file = field.files?.[0];
    if (!file) return;
    brought = [CARS.bringing(file.name)];
    try {
      brought = (await api.bringIn(await file.text())).map((car) => CARS.brought(car));
    } catch (error) {
      brought = [CARS.notBrought(file.name, (error as Error).message)];
    }
    field.value = '';
    onbrought();
  }
</script>

<div>
  <Card title={CARS.whole} soft={CARS.wholeSoft}>
    <p>
      <a class="button" href="/api/workshop.json" download>{CARS.save}</a>
      <label class="button"
        >{CARS.bring}<input
          class="hidden"
          type="file"
          accept=".json,application/json"
          onchange={(e) => void bringIn(e)}
        /></label
      >
    </p>
    {#each brought as line, i (i)}<p role="status">{line}</p>{/each}
  </Card>
</div>

<style>
  div {
    width: 100%;
  }
  label:focus-within {
    outline: 3px solid var(--layout);
    outline-offset: 2px;
  }
</style>
