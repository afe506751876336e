<script lang="ts">
  // The springs and dampers of each end: what they are fastened to, rates and lengths.
  import type { Linkage } from '$lib/api/client';
  import FigureField from '$parts/FigureField.svelte';
  import type { Draft, End } from './draft';
  import { PLAN, SPRINGS } from './texts';

  type Props = { draft: Draft; at: (path: string) => string };
  let { draft, at }: Props = $props();
  type Spring = NonNullable<Linkage['springs']>[number];
  const ends = ['front', 'rear'] as const;
  const parts = ['rate', 'free', 'solid', 'seat', 'closed', 'open'] as const;
  const STANDS = ['car', 'upright', 'rocker', 'lower', 'upper', 'arm', 'hinge'];
  const pointsOf = (end: End) => [
    ...new Set(
      Object.keys(draft.points)
        .filter((n) => (end === 'front' ? /^(LF|RF|front)\./ : /^(LR|RR|rear)\./).test(n))
        .map((n) => n.split('.').slice(1).join('.')),
    ),
  ];
  const rows = (end: End): Spring[] => draft.linkages[end]?.springs ?? [];
  const change = (end: End, springs: Spring[]) => (draft.linkages[end] = { ...draft.linkages[end]!, springs });
  const set = (end: End, i: number, part: Partial<Spring>) =>
    change(
      end,
      rows(end).map((s, n) => (n === i ? { ...s, ...part } : s)),
    );
  const stand = (end: End, i: number, which: 0 | 1, part: Partial<Spring['ends'][0]>) => {
    const both = rows(end)[i]!.ends.map((e, n) => (n === which ? { ...e, ...part } : e)) as Spring['ends'];
    set(end, i, { ends: both });
  };
  const add = (end: End) =>
    change(end, [
      ...rows(end),
      {
        name: SPRINGS.fresh,
        ends: [
          { point: '', on: 'car' },
          { point: '', on: 'upright' },
        ],
        rate: null,
        free: null,
        closed: null,
        open: null,
        solid: null,
        helper: null,
        seat: 0,
      },
    ]);
  const helper = (end: End, i: number, n: number, v: number | null) => {
    const now: [number, number, number] = [...(rows(end)[i]!.helper ?? [0, 0, 0])] as [number, number, number];
    now[n] = v ?? 0;
    set(end, i, { helper: now.some((x) => x > 0) ? now : null });
  };
</script>

<section class="card" aria-label={SPRINGS.title}>
  <h2>{SPRINGS.title}</h2>
  <p class="soft">{SPRINGS.soft}</p>
  {#each ends.filter((e) => draft.linkages[e]) as end (end)}
    <h3>{PLAN.axles[end]}</h3>
    <datalist id="{end}-points"
      >{#each pointsOf(end) as name (name)}<option value={name}></option>{/each}</datalist
    >
    {#each rows(end) as spring, i (i)}
      <fieldset>
        <legend>{spring.name}</legend>
        <div class="row">
          <label
            >{SPRINGS.name}<input
              value={spring.name}
              maxlength="80"
              onchange={(e) => set(end, i, { name: e.currentTarget.value })}
            /></label
          >
          {#each [0, 1] as const as which (which)}
            <label
              >{SPRINGS.point}<input
                list="{end}-points"
                value={spring.ends[which].point}
                onchange={(e) => stand(end, i, which, { point: e.currentTarget.value.trim() })}
              /></label
            >
            <label
              >{SPRINGS.on}<input
                list="stands"
                value={spring.ends[which].on}
                onchange={(e) => stand(end, i, which, { on: e.currentTarget.value.trim() })}
              /></label
            >
          {/each}
        </div>
        <div class="row six">
          {#each parts as part (part)}<FigureField
              label={SPRINGS[part]}
              name="{spring.name} {end}, {SPRINGS[part]}"
              value={spring[part] ?? null}
              kind={part === 'rate' ? 'rate' : 'length'}
              units={draft.units}
              problem={at(`${end}_linkage.springs.${spring.name}.${part}`)}
              onchange={(v) => set(end, i, { [part]: part === 'seat' ? (v ?? 0) : v })}
            />{/each}
          {#each SPRINGS.helper as word, n (word)}<FigureField
              label={word}
              name="{spring.name} {end}, {word}"
              value={spring.helper?.[n] ?? null}
              kind={n === 0 ? 'rate' : 'length'}
              units={draft.units}
              onchange={(v) => helper(end, i, n, v)}
            />{/each}
          <button
            type="button"
            class="button"
            aria-label="{SPRINGS.out} {spring.name}"
            onclick={() =>
              change(
                end,
                rows(end).filter((_, n) => n !== i),
              )}>{SPRINGS.out}</button
          >
        </div>
      </fieldset>
    {/each}
    <button type="button" class="button" onclick={() => add(end)}>{SPRINGS.add}</button>
  {/each}
  <datalist id="stands"
    >{#each STANDS as on (on)}<option value={on}></option>{/each}</datalist
  >
</section>

<style>
  section {
    display: grid;
    gap: 8px;
    justify-items: start;
  }
  fieldset {
    border: 1px solid var(--edge);
    border-radius: var(--round);
    padding: 4px 10px 8px;
    margin: 0;
    width: 100%;
    min-width: 0;
    display: grid;
    gap: 6px;
  }
  .row {
    display: grid;
    grid-template-columns: repeat(5, minmax(0, 1fr));
    gap: 8px;
    align-items: end;
  }
  label {
    display: grid;
    color: var(--ink-soft);
    font-size: 0.8125rem;
    min-width: 0;
  }
  input {
    min-height: var(--touch);
    width: 100%;
    border: 1px solid var(--steel-dark);
    border-radius: var(--round);
    background: #fff;
    padding: 2px 8px;
    font-size: 1rem;
    color: var(--ink);
  }
  h3 {
    font-size: 1rem;
  }
</style>
