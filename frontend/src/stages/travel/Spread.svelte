<script lang="ts">
  // How far the figures scatter if every point may be off by so much.
  import { untrack } from 'svelte';
  import { api } from '$lib/api/client';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import type { Bench } from './bench.svelte';
  import { signed } from './numbers';
  import { TRAVEL } from './texts';

  type Props = { bench: Bench };
  let { bench }: Props = $props();
  let doubt = $state('');
  let spread = $state.raw<Awaited<ReturnType<typeof api.spread>>>([]);
  let refusal = $state('');

  async function scatter(): Promise<void> {
    const [typed, end] = [doubt, bench.end];
    [spread, refusal] = [[], ''];
    if (!typed.trim()) return;
    try {
      const found = await api.spread(bench.slug, end, typed);
      if (typed === doubt && end === bench.end) spread = found;
    } catch (error) {
      if (typed === doubt) refusal = (error as Error).message;
    }
  }
  $effect(() => {
    void bench.end;
    untrack(() => void scatter());
  });
  const said = $derived(
    spread
      .map((r) => `${r.label.toLowerCase()} ± ${signed(r.drawn, r.digits)}${r.unit === '°' ? '' : ' '}${r.unit}`)
      .join(' · '),
  );
</script>

<Row cols={2}>
  <Text
    label={TRAVEL.doubt}
    bind:value={doubt}
    figure
    max={40}
    hint={bench.inches ? '1/32' : '0.5'}
    oninput={() => void scatter()}
  />
  <span class="soft" class:no={refusal} role="status">{refusal || said || TRAVEL.doubtSoft}</span>
</Row>
