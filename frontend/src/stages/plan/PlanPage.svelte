<script lang="ts">
  // What the builder wants of one car. Beginning a car and revising its plan are the same form.
  import { untrack } from 'svelte';
  import { api, Away, type CarLine, type Corner, type Problem, Refused, type Wanting } from '$lib/api/client';
  import { until } from '$lib/api/until';
  import { type Car, newEntry } from '$lib/car.svelte';
  import { CORNER_KINDS, cornerName, WHOLE_MARKS } from '$lib/kinds';
  import { CORNERS, CORNER_WORDS, isLeft } from '$lib/marks';
  import { allRead } from '$lib/figures';
  import { router } from '$lib/router.svelte';
  import FigureField from '$parts/FigureField.svelte';
  import Adjusters from './Adjusters.svelte';
  import Footing from './Footing.svelte';
  import Parts from './Parts.svelte';
  import Springs from './Springs.svelte';
  import Points from './Points.svelte';
  import { type Doubt, draftOf, markKind, planOf, spansOf, wholeLabel } from './draft';
  import { PLAN } from './texts';

  type Props = { car?: Car };
  let { car }: Props = $props();

  const MARGINS = [5, (3 / 16) * 25.4]; // mm; what the bump stop comes before the ground by, in either system
  const before = untrack(() => car?.view?.plan ?? null);
  let base = $state.raw(before); // the plan this one was begun from: what the form does not show is taken over from it
  const revises = untrack(() => car?.view?.plan_number ?? 0);
  let draft = $state(draftOf(before));
  let problems = $state.raw<Problem[]>([]);
  let sentence = $state('');
  let unusual = $state(false); // asked about once; sent again, it is kept
  const beginning = newEntry({ kind: 'note', version: 1, words: 'a' }).id; // one identity, however often it is sent
  const at = (path: string) => problems.find((p) => p.path.replace(/^what\.(plan\.)*/, '') === path)?.sentence ?? '';
  const axles = ['front', 'rear'] as const;

  // Two tables of aims, one for the build and one for the running car; readings are judged by that of the stage.
  let shown = $state(untrack(() => draft.stage));
  const aims = $derived(shown === 'build' ? draft.buildAims : draft.aims);
  const aimPath = $derived(shown === 'build' ? 'build_aims' : 'aims');
  let wanting = $state.raw<Wanting[]>([]);
  $effect(() =>
    car
      ? until(
          () => api.wanting(car.slug),
          (found) => (wanting = found),
        )
      : undefined,
  );

  // The table of tools, and what else a new car begins with, belong to the units until somebody has changed them.
  $effect(() => {
    const inches = draft.units.system !== 'mm';
    if (!before && untrack(() => MARGINS.includes(draft.footing.margin)))
      draft.footing.margin = MARGINS[inches ? 1 : 0]!;
    return base?.tools.length
      ? undefined
      : until(
          () => api.tools(inches),
          (tools) => (draft.tools = tools),
        );
  });

  function copy(from: (c: string) => boolean, to: (c: string) => string): void {
    for (const c of CORNERS.filter(from)) {
      for (const kind of CORNER_KINDS) aims[`${to(c)}.${kind}`] = { ...aims[`${c}.${kind}`]! };
    }
  }

  let purposes = $state.raw<Record<string, NonNullable<typeof before>['aims']>>({});
  $effect(() => {
    const [front, rear, inches] = [
      draft.linkages.front?.layout,
      draft.linkages.rear?.layout,
      draft.units.system !== 'mm',
    ];
    return until(
      () => api.purposes(front, rear, inches),
      (found) => (purposes = found),
    );
  });
  function start(purpose: string): void {
    for (const { mark, aim, tolerance, source } of purposes[purpose] ?? [])
      draft.aims[mark] = { aim, tolerance, source: `${purpose}: ${source}`, trust: 'fair', other: '', typed: '' };
  }
  const sourced = $derived(Object.entries(aims).filter(([, a]) => a.aim !== null));

  // A new car may take over the plan of another one, or one from a file; its name is its own.
  let others = $state.raw<CarLine[]>([]);
  $effect(() => (car ? undefined : until(api.cars, (found) => (others = found))));
  async function takeFrom(slug: string): Promise<void> {
    if (!slug) return;
    base = await api.planOf(slug);
    draft = { ...draftOf(base), name: draft.name };
  }
  async function takeFile(file: File | undefined): Promise<void> {
    if (!file) return;
    sentence = '';
    try {
      const found = JSON.parse(await file.text()) as NonNullable<typeof before>;
      if (found.format !== 'ready-corner plan') throw new Error();
      base = found;
      draft = draftOf(found);
    } catch {
      sentence = PLAN.notPlan(file.name);
    }
  }

  async function keep(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    (document.activeElement as HTMLElement | null)?.blur(); // a figure still in its field is read first
    await allRead();
    sentence = '';
    const made = planOf($state.snapshot(draft), base);
    problems = 'problems' in made ? made.problems : [];
    if ('problems' in made)
      sentence = `${made.problems.length} figure${made.problems.length === 1 ? ' is' : 's are'} still missing.`;
    else await send(made.plan);
    if (problems.length || sentence)
      requestAnimationFrame(() => document.querySelector<HTMLElement>('[aria-invalid]')?.focus());
  }

  async function send(plan: NonNullable<typeof before>): Promise<void> {
    try {
      if (car) {
        const fate = await car.ask(
          { kind: 'plan', version: 1, plan, revises, confirmed: unusual },
          PLAN.revise(plan.name),
        );
        if (fate.fate === 'refused')
          [sentence, problems, unusual] = [fate.sentence, fate.problems, fate.code === 'unusual_value'];
        else router.go(`/cars/${car.slug}`);
      } else {
        const { slug } = await api.begin({
          ...newEntry({ kind: 'plan', version: 1, plan, revises: 0, confirmed: false }),
          id: beginning,
        });
        router.go(`/cars/${slug}`);
      }
    } catch (error) {
      sentence = error instanceof Away ? PLAN.away : (error as Error).message;
      if (error instanceof Refused) problems = error.problems;
    }
  }
</script>

<main>
  <form onsubmit={keep} novalidate>
    <section class="card">
      <h1>{before ? PLAN.revise(before.name) : PLAN.begin} <span class="soft">{PLAN.soft}</span></h1>
      <div class="grid four">
        <label
          >{PLAN.name}<input
            bind:value={draft.name}
            maxlength="80"
            aria-invalid={at('name') ? 'true' : undefined}
          />{#if at('name')}<small class="no">{at('name')}</small>{/if}</label
        >
        <label>{PLAN.about}<input bind:value={draft.about} maxlength="200" /></label>
        <label
          >{PLAN.units}<select bind:value={draft.units.system}
            >{#each Object.entries(PLAN.unitNames) as [value, name] (value)}<option {value}>{name}</option
              >{/each}</select
          ></label
        >
        {#if draft.units.system === 'inch_fraction'}<label
            >{PLAN.finest}<select bind:value={draft.units.finest}
              >{#each [16, 32, 64] as n (n)}<option value={n}>1/{n}</option>{/each}</select
            ></label
          >{/if}
      </div>
    </section>

    {#if !car}
      <section class="card from" aria-label={PLAN.from}>
        <label
          >{PLAN.from}
          {PLAN.fromCar}<select onchange={(e) => void takeFrom(e.currentTarget.value)}
            ><option value="">{PLAN.nothing}</option>{#each others as other (other.slug)}<option value={other.slug}
                >{other.name}</option
              >{/each}</select
          ></label
        >
        <label
          >{PLAN.from}
          {PLAN.fromFile}<input
            type="file"
            accept=".json,application/json"
            onchange={(e) => void takeFile(e.currentTarget.files?.[0])}
          /></label
        >
      </section>
    {/if}

    <section class="card">
      <h2>{PLAN.dimensions}</h2>
      <div class="grid five">
        <FigureField
          label={PLAN.wheelbase}
          value={draft.wheelbase}
          kind="length"
          units={draft.units}
          problem={at('wheelbase')}
          onchange={(v) => (draft.wheelbase = v)}
        />
        {#each axles as end (end)}
          <h3>{PLAN.axles[end]}</h3>
          {#each ['track', 'rim_flange_diameter', 'tyre_diameter', 'hub_width'] as const as part (part)}
            <FigureField
              label={PLAN.axle[part]}
              name="{PLAN.axles[end]}, {PLAN.axle[part]}"
              why={PLAN.axleWhy[part]}
              value={draft[end][part]}
              kind="length"
              units={draft.units}
              problem={at(`${end}.${part}`)}
              onchange={(v) => (draft[end][part] = v)}
            />
          {/each}
        {/each}
      </div>
    </section>

    <section class="card">
      <h2>{PLAN.aims}</h2>
      <p class="soft">{PLAN.aimsSoft}</p>
      <div class="stages">
        <div role="group" aria-label={PLAN.stage}>
          {#each Object.entries(PLAN.stages) as [stage, name] (stage)}<button
              type="button"
              class="button"
              aria-pressed={shown === stage}
              onclick={() => (shown = stage as 'build')}>{name}</button
            >{/each}
        </div>
        <label class="judged"
          >{PLAN.judged}<select bind:value={draft.stage}
            >{#each Object.entries(PLAN.stages) as [stage, name] (stage)}<option value={stage}>{name}</option
              >{/each}</select
          ></label
        >
      </div>
      <table>
        <thead
          ><tr
            ><th></th>{#each CORNERS as c (c)}<th scope="col">{CORNER_WORDS[c]}</th>{/each}</tr
          ></thead
        >
        <tbody>
          {#each CORNER_KINDS as kind (kind)}
            <tr
              ><th scope="row">{cornerName(kind, 'label')}</th>
              {#each CORNERS as c (c)}
                {@const mark = `${c}.${kind}`}
                <td
                  ><div class="aim">
                    <FigureField
                      bare
                      label="{CORNER_WORDS[c]} {kind} aim"
                      value={aims[mark]!.aim}
                      kind={markKind(mark)}
                      units={draft.units}
                      problem={at(`${aimPath}.${mark}.aim`)}
                      spans={spansOf(draft, mark)}
                      as={aims[mark]!.typed}
                      onchange={(v, typed) =>
                        Object.assign(aims[mark]!, { aim: v, typed: /toe$/.test(mark) ? typed : '' })}
                    />
                    <FigureField
                      bare
                      label="{CORNER_WORDS[c]} {kind} tolerance"
                      value={aims[mark]!.tolerance}
                      kind={markKind(mark)}
                      units={draft.units}
                      problem={at(`${aimPath}.${mark}.tolerance`)}
                      spans={spansOf(draft, mark)}
                      onchange={(v) => (aims[mark]!.tolerance = v === null ? null : Math.abs(v))}
                    />
                  </div></td
                >
              {/each}
            </tr>
          {/each}
        </tbody>
      </table>
      <div class="purpose">
        <label
          >{PLAN.purpose}<select onchange={(e) => start(e.currentTarget.value)}
            ><option value=""></option>{#each Object.keys(purposes) as purpose (purpose)}<option>{purpose}</option
              >{/each}</select
          ></label
        >
        <p class="soft">{PLAN.purposeSoft}</p>
      </div>
      {#if sourced.length}
        <details>
          <summary>{PLAN.sources}</summary>
          <dl>
            {#each sourced as [mark, aim] (mark)}<dt>
                {CORNERS.includes(mark.split('.')[0] as Corner)
                  ? `${CORNER_WORDS[mark.split('.')[0] as Corner]} ${mark.split('.')[1]}`
                  : wholeLabel(mark)}
              </dt>
              <dd><input bind:value={aim.source} maxlength="400" aria-label="{mark}, {PLAN.source}" /></dd>
              <dd>
                <select bind:value={aim.trust} aria-label="{mark}, {PLAN.trust}"
                  >{#each Object.entries(PLAN.trusts) as [trust, name] (trust)}<option value={trust}>{name}</option
                    >{/each}</select
                >
              </dd>
              <dd>
                <input
                  bind:value={aim.other}
                  maxlength="400"
                  placeholder={PLAN.other}
                  aria-label="{mark}, {PLAN.other}"
                />
              </dd>{/each}
          </dl>
        </details>
      {/if}
      <p>
        <button
          type="button"
          class="button"
          onclick={() =>
            copy(
              (c) => isLeft(c as 'LF'),
              (c) => c.replace('L', 'R'),
            )}>{PLAN.copy}</button
        >
        <button
          type="button"
          class="button"
          onclick={() =>
            copy(
              (c) => c.endsWith('F'),
              (c) => c.replace('F', 'R'),
            )}>{PLAN.copyRear}</button
        >
      </p>
      <div class="grid five">
        {#each WHOLE_MARKS as mark (mark)}
          {@const name = wholeLabel(mark)}
          <div>
            <span class="soft">{name}</span>
            <div class="aim">
              <FigureField
                bare
                label="{name} aim"
                value={aims[mark]!.aim}
                kind={markKind(mark)}
                units={draft.units}
                problem={at(`${aimPath}.${mark}.aim`)}
                spans={spansOf(draft, mark)}
                as={aims[mark]!.typed}
                onchange={(v, typed) => Object.assign(aims[mark]!, { aim: v, typed: /toe$/.test(mark) ? typed : '' })}
              />
              <FigureField
                bare
                label="{name} tolerance"
                value={aims[mark]!.tolerance}
                kind={markKind(mark)}
                units={draft.units}
                problem={at(`${aimPath}.${mark}.tolerance`)}
                spans={spansOf(draft, mark)}
                onchange={(v) => (aims[mark]!.tolerance = v === null ? null : Math.abs(v))}
              />
            </div>
          </div>
        {/each}
      </div>
    </section>

    <section class="card">
      <h2>{PLAN.places}</h2>
      <p class="soft">{PLAN.placesSoft}</p>
      <div class="grid four">
        {#each CORNERS as c (c)}
          <fieldset>
            <legend>{CORNER_WORDS[c]}</legend>
            <label
              >{PLAN.placeName}<input
                bind:value={draft.heights[c].name}
                maxlength="80"
                aria-label="{CORNER_WORDS[c]} height, feature"
              /></label
            >
            <div class="aim">
              <FigureField
                label={PLAN.station}
                name="{CORNER_WORDS[c]} height, {PLAN.station}"
                value={draft.heights[c].station}
                kind="length"
                units={draft.units}
                problem={at(`heights.${c}.station`)}
                onchange={(v) => (draft.heights[c].station = v)}
              />
              <FigureField
                label={PLAN.offset}
                name="{CORNER_WORDS[c]} height, {PLAN.offset}"
                value={draft.heights[c].offset}
                kind="length"
                units={draft.units}
                problem={at(`heights.${c}.offset`)}
                onchange={(v) => (draft.heights[c].offset = v)}
              />
              <FigureField
                label={PLAN.asDrawn}
                name="{CORNER_WORDS[c]} height, {PLAN.asDrawn}"
                value={draft.heights[c].height}
                kind="length"
                units={draft.units}
                problem={at(`heights.${c}.height`)}
                onchange={(v) => (draft.heights[c].height = v)}
              />
            </div>
          </fieldset>
        {/each}
      </div>
    </section>

    {#if wanting.length}
      <section class="card" aria-label={PLAN.wanting}>
        <h2>{PLAN.wanting} <span class="soft">{PLAN.wantingSoft}</span></h2>
        <table class="wanting">
          <tbody
            >{#each wanting as row (row.what + row.stage)}<tr
                ><th scope="row">{row.stage}</th><td>{row.what}</td><td class="soft">{row.step}</td></tr
              >{/each}</tbody
          >
        </table>
      </section>
    {/if}

    <Points {draft} slug={car?.slug} {at} />

    <Springs {draft} {at} />

    <Parts {draft} {at} />

    <Footing {draft} {at} />

    <Adjusters bind:adjusters={draft.adjusters} {draft} units={draft.units} {at} />

    <section class="card">
      <h2>{PLAN.tools}</h2>
      <p class="soft">{PLAN.toolsSoft}</p>
      <div class="grid five">
        {#each draft.tools as tool (tool.id)}
          <fieldset>
            <legend>{tool.name}</legend>
            <div class="three">
              {#each ['step', 'repeatability', 'zero'] as const as part (part)}
                <FigureField
                  label={PLAN.tool[part]}
                  name="{tool.name}, {PLAN.tool[part]}"
                  value={tool[part] ?? 0}
                  kind={tool.measures}
                  units={draft.units}
                  problem={at(`tools.${tool.id}.${part}`)}
                  onchange={(v) => (tool[part] = v ?? 0)}
                />
              {/each}
            </div>
          </fieldset>
        {/each}
      </div>
      <h2>{PLAN.ways}</h2>
      <div class="grid two">
        <label
          >{PLAN.strings}<select bind:value={draft.ways.strings}
            >{#each Object.entries(PLAN.stringWays) as [value, name] (value)}<option {value}>{name}</option
              >{/each}</select
          ></label
        >
        <label>{PLAN.reason}<input bind:value={draft.ways.strings_reason} maxlength="400" /></label>
      </div>
      <div class="grid four">
        {#each Object.entries(PLAN.doubts) as [name, label] (name)}
          {#if name !== 'box_parallel' || draft.ways.strings === 'box'}<FigureField
              {label}
              value={draft.ways[name as Doubt]}
              kind="length"
              units={draft.units}
              problem={at(`ways.${name}`)}
              onchange={(v) => (draft.ways[name as Doubt] = v)}
            />{/if}
        {/each}
      </div>
    </section>

    <div class="keep">
      <p role="alert">{sentence}</p>
      {#if car}<a class="button" href="/cars/{car.slug}">{PLAN.cancel}</a>{/if}
      <button class="button" data-main>{unusual ? PLAN.anyway : car ? PLAN.save : PLAN.start}</button>
    </div>
  </form>
</main>

<style>
  main {
    padding: var(--gap-3);
  }
  form {
    display: grid;
    gap: var(--gap-3);
    max-width: 1280px;
    margin: 0 auto;
  }
  .purpose {
    display: grid;
    grid-template-columns: 260px 1fr;
    gap: var(--gap-3);
    align-items: center;
    padding-top: var(--gap-2);
  }
  details {
    padding-bottom: var(--gap-2);
  }
  summary {
    min-height: var(--touch);
    display: flex;
    align-items: center;
    cursor: pointer;
    font-size: var(--type-small);
  }
  .stages {
    display: flex;
    gap: var(--gap-3);
    justify-content: space-between;
    align-items: end;
  }
  .stages [role='group'] {
    display: flex;
  }
  .stages .button {
    border-radius: 0;
    margin-right: -1px;
    font-weight: 400;
  }
  .stages [aria-pressed='true'] {
    background: var(--layout);
    color: #fff;
    font-weight: 700;
  }
  .judged {
    width: 320px;
  }
  .wanting {
    table-layout: auto;
  }
  .wanting td,
  .wanting th {
    border-top: 1px solid var(--edge);
    padding: 4px 10px 4px 0;
  }
  dl {
    display: grid;
    grid-template-columns: 180px 2fr 130px 2fr;
    gap: 4px 10px;
    align-items: center;
    margin: 0;
    font-size: var(--type-small);
  }
  dd {
    margin: 0;
  }
  .from {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: var(--gap-3);
    padding-block: var(--gap-2);
  }
  h1 {
    font-size: 1.25rem;
  }
  h1 span {
    font-weight: 400;
  }
  h2 {
    font-size: 1.0625rem;
  }
  h3 {
    font-size: 1rem;
    align-self: end;
    padding-bottom: 24px;
    grid-column: 1;
  }
  .grid {
    display: grid;
    gap: var(--gap-2) var(--gap-3);
    margin: var(--gap-2) 0;
    align-items: start;
  }
  .two {
    grid-template-columns: 1fr 1fr;
  }
  .four {
    grid-template-columns: repeat(4, minmax(0, 1fr));
  }
  .five {
    grid-template-columns: repeat(5, minmax(0, 1fr));
  }
  .five > :global(label:first-child) {
    grid-column: 1 / 2;
  }
  label {
    display: grid;
    gap: 1px;
    color: var(--ink-soft);
    font-size: 0.8125rem;
  }
  input,
  select {
    min-height: var(--touch);
    width: 100%;
    border: 1px solid var(--steel-dark);
    border-radius: var(--round);
    background: #fff;
    padding: 2px 8px;
    color: var(--ink);
    font-size: 1rem;
  }
  [aria-invalid] {
    border: 2px solid var(--rust);
  }
  .no,
  [role='alert'] {
    color: var(--rust);
    font-weight: 700;
  }
  fieldset {
    border: 1px solid var(--edge);
    border-radius: var(--round);
    padding: 4px 10px 10px;
    margin: 0;
    min-width: 0;
    display: grid;
    gap: 6px;
  }
  legend {
    font-weight: 700;
    padding: 0 4px;
  }
  .aim {
    display: grid;
    grid-template-columns: 3fr 2fr;
    gap: 4px;
  }
  .three {
    display: grid;
    grid-template-columns: repeat(3, minmax(0, 1fr));
    gap: 4px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    table-layout: fixed;
  }
  th {
    text-align: left;
    font-weight: 400;
    font-size: var(--type-small);
    color: var(--ink-soft);
  }
  tbody th {
    width: 96px;
    color: var(--ink);
    font-weight: 700;
  }
  thead th:first-child {
    width: 96px;
  }
  td {
    padding: 3px 10px 3px 0;
    vertical-align: top;
  }
  .keep {
    position: sticky;
    bottom: 0;
    background: var(--bench);
    padding: var(--gap-2) 0;
    display: flex;
    gap: var(--gap-3);
    justify-content: end;
    align-items: center;
    border-top: 2px solid var(--steel);
  }
  .keep p {
    flex: 1;
  }
</style>
