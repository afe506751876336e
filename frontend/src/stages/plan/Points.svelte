<script lang="ts">
  // Layout of each end and its points, with the drawing beside the table: the point in hand lights up.
  import { api, type Layout, Refused } from '$lib/api/client';
  import { until } from '$lib/api/until';
  import FigureField from '$parts/FigureField.svelte';
  import type { Draft, End } from './draft';
  import LayoutGlyph from './LayoutGlyph.svelte';
  import LinkageDrawing from './LinkageDrawing.svelte';
  import { PLAN } from './texts';

  type Props = { draft: Draft; slug?: string | undefined; at: (path: string) => string };
  let { draft, slug, at }: Props = $props();

  let layouts = $state.raw<Layout[]>([]);
  let end = $state<End>('front');
  let lit = $state('');
  let text = $state('');
  let refusal = $state('');
  $effect(() => until(api.layouts, (found) => (layouts = found)));

  const linkage = $derived(draft.linkages[end]);
  const layout = $derived(layouts.find((l) => l.name === linkage?.layout));
  const prefix = $derived(layout?.axle ? end : end === 'front' ? 'LF' : 'LR');
  const shown = $derived.by(() => {
    const given = Object.keys(draft.points)
      .filter((n) => n.startsWith(`${prefix}.`))
      .map((n) => n.slice(prefix.length + 1));
    const needed = [
      ...(layout?.needed ?? []),
      ...(linkage && linkage.steering !== 'none' ? (layout?.steered ?? []) : []),
    ].filter((n) => !layout!.axle || (!n.startsWith('right.') && !n.includes('.right.')));
    const box =
      linkage?.steering === 'box'
        ? ['box.first', 'box.second', 'box.arm', 'idler.first', 'idler.second', 'idler.arm']
        : [];
    return { needed, more: given.filter((n) => !needed.includes(n) && !box.includes(n)), box };
  });

  function choose(name: string): void {
    if (!name) draft.linkages[end] = null;
    else if (linkage) draft.linkages[end] = { ...linkage, layout: name as Layout['name'] };
    else
      draft.linkages[end] = {
        layout: name as Layout['name'],
        loaded_radius: (draft[end].tyre_diameter ?? 600) / 2,
        steering: end === 'front' ? 'rack' : 'none',
        mirrored: true,
        toe_deg: 0,
        camber_deg: 0,
        springs: [],
        torsions: [],
        rocker: null,
        bar: null,
        shaft: null,
        joints: [],
        lengths: {},
      };
  }

  async function example(): Promise<void> {
    if (!layout) return;
    const found = await api.example(layout.name, end);
    const along = end === 'front' ? 0 : -(draft.wheelbase ?? 0);
    draft.linkages[end] = found.linkage;
    for (const [name, [x, y, z]] of Object.entries(found.points)) draft.points[`${prefix}.${name}`] = [x + along, y, z];
    // The wheel stands where track and wheelbase put it.
    const wheel = layout.axle ? `${prefix}.left.wheel` : `${prefix}.wheel`;
    const place = draft.points[wheel];
    const track = draft[end].track;
    if (place && track) draft.points[wheel] = [along, track / 2, place[2]];
  }

  // The points of a steering box belong to the end, not to one of its corners.
  const key = (name: string) => (/^(box|idler)\./.test(name) ? `${end}.${name}` : `${prefix}.${name}`);

  function set(name: string, axis: number, value: number | null): void {
    const place = [...(draft.points[key(name)] ?? [null, null, null])] as [number | null, number | null, number | null];
    place[axis] = value;
    if (place.every((v) => v === null)) delete draft.points[key(name)];
    else draft.points[key(name)] = place;
  }

  async function take(): Promise<void> {
    refusal = '';
    try {
      Object.assign(draft.points, await api.points(text, draft.units));
      text = '';
    } catch (error) {
      refusal =
        error instanceof Refused
          ? error.problems.map((p) => `${p.path}: ${p.sentence}`).join(' ') || error.message
          : '';
    }
  }
  const wrong = $derived(
    [...shown.needed, ...shown.box, ...shown.more].map((n) => at(`points.${key(n)}`)).filter(Boolean),
  );
  const WAYS = [PLAN.station, PLAN.offset, PLAN.height];
</script>

<section class="card" aria-label={PLAN.points}>
  <h2>{PLAN.points}</h2>
  <p class="soft">{PLAN.pointsSoft}</p>
  <div class="ends" role="group" aria-label={PLAN.layout}>
    {#each ['front', 'rear'] as const as e (e)}<button
        type="button"
        class="button"
        aria-pressed={end === e}
        onclick={() => (end = e)}>{PLAN.axles[e]}</button
      >{/each}
  </div>
  <div class="layouts" role="radiogroup" aria-label="{PLAN.axles[end]}, {PLAN.layout}">
    {#each layouts as one (one.name)}
      <button
        type="button"
        role="radio"
        aria-checked={linkage?.layout === one.name}
        onclick={() => choose(linkage?.layout === one.name ? '' : one.name)}
        title={one.words}><LayoutGlyph name={one.name} /><span>{one.name}</span></button
      >
    {/each}
  </div>
  {#if linkage && layout}
    <div class="facts">
      <label
        >{PLAN.steering}<select bind:value={linkage.steering}
          >{#each Object.entries(PLAN.steeringWays) as [value, name] (value)}<option {value}>{name}</option
            >{/each}</select
        ></label
      >
      <FigureField
        label={PLAN.radius}
        value={linkage.loaded_radius}
        kind="length"
        units={draft.units}
        problem={at(`${end}_linkage.loaded_radius`)}
        onchange={(v) => (linkage.loaded_radius = v ?? 0)}
      />
      <FigureField
        label={PLAN.camberDesign}
        value={linkage.camber_deg ?? 0}
        kind="angle"
        units={draft.units}
        onchange={(v) => (linkage.camber_deg = v ?? 0)}
      />
      <FigureField
        label={PLAN.toeDesign}
        value={linkage.toe_deg ?? 0}
        kind="angle"
        units={draft.units}
        onchange={(v) => (linkage.toe_deg = v ?? 0)}
      />
      <button type="button" class="button" onclick={example}>{PLAN.example}</button>
    </div>
    {#each wrong as sentence (sentence)}<p role="alert">{sentence}</p>{/each}
    <div class="two">
      <table>
        <thead
          ><tr
            ><th scope="col">{PLAN.point}</th>{#each WAYS as way (way)}<th scope="col">{way}</th>{/each}</tr
          ></thead
        >
        {#each [shown.needed, shown.box, shown.more] as names, i (i)}
          <tbody>
            {#if i && names.length}<tr><th colspan="4" class="more">{i === 1 ? PLAN.boxPoints : PLAN.more}</th></tr
              >{/if}
            {#each names as name (name)}
              <tr
                data-lit={lit === name || undefined}
                onfocusin={() => (lit = name)}
                onpointerenter={() => (lit = name)}
              >
                <th scope="row">{name.replaceAll('.', ' ')}</th>
                {#each [0, 1, 2] as axis (axis)}
                  <td
                    ><FigureField
                      bare
                      label="{name}, {WAYS[axis]}"
                      value={draft.points[key(name)]?.[axis] ?? null}
                      kind="length"
                      units={draft.units}
                      problem={axis === 0 && at(`points.${key(name)}`) ? ' ' : ''}
                      onchange={(v) => set(name, axis, v)}
                    /></td
                  >
                {/each}
              </tr>
            {/each}
          </tbody>
        {/each}
      </table>
      <div class="drawn">
        <LinkageDrawing
          {draft}
          {layout}
          {linkage}
          {prefix}
          {lit}
          label={PLAN.drawn(PLAN.axles[end])}
          onpick={(name) => (lit = name)}
        />
        <label
          >{PLAN.paste}<textarea
            bind:value={text}
            rows="3"
            placeholder={draft.units.system === 'mm'
              ? 'LF.lower.ball, 6, 612, 150'
              : 'LF.lower.ball, 1/4, 24 1/8, 5 15/16'}></textarea><small>{PLAN.pasteSoft}</small></label
        >
        {#if refusal}<p role="alert">{refusal}</p>{/if}
        <p>
          <button type="button" class="button" onclick={take} disabled={!text.trim()}>{PLAN.take}</button>
          {#if slug}<a class="button" href="/api/cars/{slug}/points.csv" download="{slug}.points.csv">{PLAN.save_csv}</a
            >{/if}
        </p>
      </div>
    </div>
  {/if}
  <h3>{PLAN.loads} <small>{PLAN.loadsSoft}</small></h3>
  {#if draft.loads}
    {@const loads = draft.loads}
    <div class="facts six">
      <FigureField
        label={PLAN.cg}
        value={loads.height}
        kind="length"
        units={draft.units}
        problem={at('loads.height')}
        onchange={(v) => (loads.height = v ?? 0)}
      />
      <FigureField
        label={PLAN.share}
        value={Math.round(loads.front_share * 1000) / 10}
        kind="number"
        units={draft.units}
        problem={at('loads.front_share')}
        onchange={(v) => (loads.front_share = (v ?? 0) / 100)}
      />
      <label
        >{PLAN.brakes}<select bind:value={loads.brakes}
          >{#each Object.entries(PLAN.acts) as [value, name] (value)}<option {value}>{name}</option>{/each}</select
        ></label
      >
      <label
        >{PLAN.drive}<select bind:value={loads.drive}
          >{#each Object.entries(PLAN.acts) as [value, name] (value)}<option {value}>{name}</option>{/each}</select
        ></label
      >
      <label
        >{PLAN.driven}<select bind:value={loads.driven}
          >{#each Object.entries(PLAN.drivenEnds) as [value, name] (value)}<option {value}>{name}</option
            >{/each}</select
        ></label
      >
      <button type="button" class="button" onclick={() => (draft.loads = null)}>{PLAN.takeLoads}</button>
    </div>
  {:else}<p>
      <button
        type="button"
        class="button"
        onclick={() =>
          (draft.loads = { height: 450, front_share: 0.6, brakes: 'outboard', drive: 'inboard', driven: 'rear' })}
        >{PLAN.giveLoads}</button
      >
    </p>{/if}
</section>

<style>
  h3 {
    font-size: 1rem;
  }
  h3 small {
    font-weight: 400;
    color: var(--ink-soft);
    font-size: 0.8125rem;
  }
  .six {
    grid-template-columns: repeat(5, minmax(0, 1fr)) auto !important;
  }
  h2 {
    font-size: 1.0625rem;
  }
  section {
    display: grid;
    gap: var(--gap-2);
  }
  .ends {
    display: flex;
  }
  .ends .button {
    border-radius: 0;
    margin-right: -1px;
    font-weight: 400;
  }
  .ends [aria-pressed='true'] {
    background: var(--layout);
    color: #fff;
    font-weight: 700;
  }
  .layouts {
    display: grid;
    grid-template-columns: repeat(7, minmax(0, 1fr));
    gap: 6px;
  }
  .layouts button {
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: #fff;
    padding: 4px;
    cursor: pointer;
    display: grid;
    justify-items: center;
    font-size: 0.8125rem;
    min-height: var(--touch);
  }
  .layouts [aria-checked='true'] {
    border: 3px solid var(--layout);
    padding: 2px;
    font-weight: 700;
  }
  .facts {
    display: grid;
    grid-template-columns: repeat(4, minmax(0, 1fr)) auto;
    gap: var(--gap-3);
    align-items: end;
  }
  .two {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: var(--gap-3);
    align-items: start;
  }
  .drawn {
    display: grid;
    gap: var(--gap-2);
    position: sticky;
    top: 0;
  }
  table {
    border-collapse: collapse;
    width: 100%;
    table-layout: fixed;
  }
  th {
    text-align: left;
    font-weight: 400;
    font-size: 0.875rem;
    padding: 0 6px 0 0;
  }
  thead th {
    color: var(--ink-soft);
    font-size: 0.8125rem;
  }
  .more {
    padding-top: 8px;
    color: var(--ink-soft);
  }
  td {
    padding: 1px 3px 1px 0;
  }
  [data-lit] {
    background: linear-gradient(90deg, #f9ecc4, transparent);
    box-shadow: -6px 0 var(--paint);
  }
  [data-lit] th {
    font-weight: 700;
  }
  label {
    display: grid;
    gap: 1px;
    color: var(--ink-soft);
    font-size: 0.8125rem;
  }
  select,
  textarea {
    min-height: var(--touch);
    width: 100%;
    border: 1px solid var(--steel-dark);
    border-radius: var(--round);
    background: #fff;
    padding: 2px 8px;
    color: var(--ink);
    font-size: 1rem;
  }
  [role='alert'] {
    color: var(--rust);
    font-weight: 700;
  }
</style>
