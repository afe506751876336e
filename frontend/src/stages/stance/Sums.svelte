<script lang="ts">
  // The sums a builder asks for beside the car, each a row of fields and its answer under it.
  import { api, type Corner, type StanceAsk, type StanceView } from '$lib/api/client';
  import type { Car } from '$lib/car.svelte';
  import { CORNER_WORDS, CORNERS } from '$lib/marks';
  import Forms from '$parts/Forms.svelte';
  import { SPRINGS, STATE, SUMS } from './texts';

  type Props = { car: Car; stance: StanceView };
  let { car, stance }: Props = $props();
  let answers = $state.raw<Record<string, { lines: [string, string][]; refusal: string }>>({});
  let spring = $state<{ corner: Corner; hz: string; sag: string; preload: string }>({
    corner: 'LF',
    hz: '',
    sag: '',
    preload: '',
  });
  let damper = $state<{ corner: Corner; closed: string; open: string }>({ corner: 'LF', closed: '', open: '' });
  let torsion = $state({ inner: '', outer: '', arm: '', rate: '', load: '', loaded: '', low: '', fine: '' });
  let bar = $state<{ end: 'front' | 'rear'; left: string; right: string; size: string[] }>({
    end: 'front',
    left: '',
    right: '',
    size: ['', '', '', '', '', ''],
  });
  let tube = $state({ length: '', joint: '', thread: '' });
  let features = $state<Record<string, string>>({});
  let arms = $state<Record<Corner, string>>({ LF: '', RF: '', LR: '', RR: '' });
  const others = $derived(stance.features.filter((f) => !f.master));
  const number = (text: string) => Number(text.replace(',', '.'));

  async function ask(asked: StanceAsk): Promise<void> {
    const shown = (lines: [string, string][], refusal: string) =>
      (answers = { ...answers, [asked.kind]: { lines, refusal } });
    try {
      shown((await api.reckon(car.slug, asked)).lines, '');
    } catch (error) {
      shown([], (error as Error).message);
    }
  }
  async function askTorsion(): Promise<void> {
    const units = car.view!.plan.units as Parameters<typeof api.read>[2];
    try {
      const rate = torsion.rate.trim() ? (await api.read(torsion.rate, 'torsion', units)).value : 0;
      await ask({
        ...torsion,
        kind: 'torsion',
        inner: number(torsion.inner) || 0,
        outer: number(torsion.outer) || 0,
        rate,
      });
    } catch (error) {
      answers = { ...answers, torsion: { lines: [], refusal: (error as Error).message } };
    }
  }
  async function askBar(): Promise<void> {
    const units = car.view!.plan.units as Parameters<typeof api.read>[2];
    const mm = async (text: string) => (text.trim() ? (await api.read(text, 'length', units)).value : 0);
    try {
      const [diameter, bore, length, arm, arm_width, arm_height] = (await Promise.all(bar.size.map(mm))) as [
        number,
        number,
        number,
        number,
        number,
        number,
      ];
      await ask({
        kind: 'bar',
        end: bar.end,
        left: bar.left,
        right: bar.right,
        bar: diameter ? { diameter, bore, length, arm, arm_width, arm_height } : null,
      });
    } catch (error) {
      answers = { ...answers, bar: { lines: [], refusal: (error as Error).message } };
    }
  }
</script>

{#snippet answer(kind: string)}
  {#if answers[kind]?.refusal}<p role="alert">{answers[kind]!.refusal}</p>{/if}
  {#if answers[kind]?.lines.length}<dl aria-live="polite">
      {#each answers[kind]!.lines as [what, much] (what)}<dt>{what}</dt>
        <dd class="fig">{much}</dd>{/each}
    </dl>{/if}
{/snippet}
{#snippet corner(value: Corner, set: (c: Corner) => void)}
  <label
    >{SPRINGS.corner}<select {value} onchange={(e) => set(e.currentTarget.value as Corner)}
      >{#each CORNERS as c (c)}<option value={c}>{CORNER_WORDS[c]}</option>{/each}</select
    ></label
  >
{/snippet}

<Forms label={SUMS.go}>
  <fieldset>
    <legend>{SUMS.spring}</legend>
    <div class="grid five">
      {@render corner(spring.corner, (c) => (spring.corner = c))}<label
        >{SUMS.hz}<input class="fig" bind:value={spring.hz} /></label
      ><label>{SUMS.sag}<input class="fig" bind:value={spring.sag} /></label><label
        >{SUMS.preload}<input class="fig" bind:value={spring.preload} /></label
      >
      <button
        type="button"
        class="button"
        onclick={() =>
          void ask({
            kind: 'spring',
            corner: spring.corner,
            hz: spring.hz.trim() ? number(spring.hz) : null,
            sag: spring.sag,
            preload: spring.preload,
          })}>{SUMS.go}</button
      >
    </div>
    {@render answer('spring')}
  </fieldset>
  <fieldset>
    <legend>{SUMS.damper}</legend>
    <p class="soft">{SUMS.damperSoft}</p>
    <div class="grid four">
      {@render corner(damper.corner, (c) => (damper.corner = c))}<label
        >{SUMS.closed}<input class="fig" bind:value={damper.closed} /></label
      ><label>{SUMS.open}<input class="fig" bind:value={damper.open} /></label><button
        type="button"
        class="button"
        onclick={() => void ask({ kind: 'damper', ...damper })}>{SUMS.go}</button
      >
    </div>
    {@render answer('damper')}
  </fieldset>
  <fieldset>
    <legend>{SUMS.tube}</legend>
    <div class="grid four">
      {#each ['length', 'joint', 'thread'] as const as key (key)}<label
          >{SUMS[key]}<input class="fig" bind:value={tube[key]} /></label
        >{/each}<button type="button" class="button" onclick={() => void ask({ kind: 'tube', ...tube })}
        >{SUMS.go}</button
      >
    </div>
    {@render answer('tube')}
  </fieldset>
  <fieldset>
    <legend>{SUMS.torsion}</legend>
    <div class="eight">
      {#each ['inner', 'outer', 'arm', 'rate', 'load', 'loaded', 'low', 'fine'] as const as key (key)}<label
          >{SUMS[key]}<input class="fig" bind:value={torsion[key]} /></label
        >{/each}
    </div>
    <button type="button" class="button" onclick={() => void askTorsion()}>{SUMS.go}</button>
    {@render answer('torsion')}
  </fieldset>
  <fieldset>
    <legend>{SUMS.bar}</legend>
    <p class="soft">{SUMS.barSoft}</p>
    <div class="grid four">
      <label
        >{SUMS.end}<select bind:value={bar.end}
          >{#each Object.entries(SUMS.ends) as [end, word] (end)}<option value={end}>{word}</option>{/each}</select
        ></label
      ><label>{SUMS.left}<input class="fig" bind:value={bar.left} /></label><label
        >{SUMS.right}<input class="fig" bind:value={bar.right} /></label
      ><button type="button" class="button" onclick={() => void askBar()}>{SUMS.go}</button>
    </div>
    <div class="grid size">
      {#each SUMS.size as word, i (word)}<label>{word}<input class="fig" bind:value={bar.size[i]} /></label>{/each}
    </div>
    {@render answer('bar')}
  </fieldset>
  {#if others.length}
    <fieldset>
      <legend>{STATE.other}</legend>
      <div class="eight">
        {#each others as f (f.name)}<label
            >{f.name}<input
              class="fig"
              placeholder={f.wanted}
              value={features[f.name] ?? ''}
              oninput={(e) => (features[f.name] = e.currentTarget.value)}
            /></label
          >{/each}{#each CORNERS as c (c)}<label
            >{SUMS.armAngle}
            {CORNER_WORDS[c].toLowerCase()}<input class="fig" placeholder="0°" bind:value={arms[c]} /></label
          >{/each}
      </div>
      <button
        type="button"
        class="button"
        onclick={() => void ask({ kind: 'heights', features: { ...features }, arms: { ...arms } })}
        >{STATE.reckon}</button
      >
      {@render answer('heights')}
    </fieldset>
  {/if}
</Forms>

<style>
  dl {
    display: grid;
    grid-template-columns: minmax(0, auto) minmax(0, 1fr);
    gap: 2px 14px;
    margin: 0;
    font-size: 0.9375rem;
  }
  dt {
    color: var(--ink-soft);
  }
  dd {
    margin: 0;
    font-weight: 700;
  }
  .eight {
    display: grid;
    grid-template-columns: repeat(4, minmax(0, 1fr));
    gap: 8px;
  }
  .size {
    grid-template-columns: repeat(6, minmax(0, 1fr));
  }
</style>
