<script lang="ts">
  // A car to practise on: how it is made, what is wrong with it, and off.
  import { newId } from '$lib/new-id';
  import { api, type Practices } from '$lib/api/client';
  import { router } from '$lib/router.svelte';
  import { who } from '$lib/shelf';
  import Page from '$parts/frame/Page.svelte';
  import Options from './Options.svelte';
  import { PRACTICE } from './texts';

  let choices = $state.raw<Practices | null>(null);
  let layout = $state('');
  let fault = $state('');
  let sentence = $state('');
  let busy = $state(false);
  const id = newId(); // one identity, however often it is sent

  async function look(): Promise<void> {
    try {
      const found = await api.practices();
      [layout, fault] = [found.layouts[0]?.name ?? '', found.faults[0]?.name ?? ''];
      [choices, sentence] = [found, ''];
    } catch (error) {
      sentence = String((error as Error).message);
    }
  }
  $effect(() => void look());

  async function begin(): Promise<void> {
    [busy, sentence] = [true, ''];
    try {
      const { slug } = await api.practise({ id, at: new Date().toISOString(), who: who(), layout, fault });
      router.go(`/cars/${slug}`);
    } catch (error) {
      [busy, sentence] = [false, String((error as Error).message)];
    }
  }
</script>

<Page title={PRACTICE.title}>
  <p class="soft">{PRACTICE.soft}</p>
  {#if choices}
    <Options title={PRACTICE.layout} options={choices.layouts} bind:value={layout} />
    <Options title={PRACTICE.fault} options={choices.faults} bind:value={fault} />
    <button type="button" class="button" data-main disabled={busy} onclick={() => void begin()}
      >{busy ? PRACTICE.begun : PRACTICE.begin}</button
    >
  {/if}
  {#if sentence}<p class="no" role="alert">{sentence}</p>{/if}
</Page>

<style>
  p {
    margin: 0;
    max-width: 70ch;
  }
</style>
