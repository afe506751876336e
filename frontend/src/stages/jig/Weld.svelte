<script lang="ts">
  // Around the weld: conditions before it, the order of joints, what is accepted; clearances; and the body on the jig.
  import { api, type JigView, type What } from '$lib/api/client';
  import { formsAt } from '$lib/kinds';
  import { takeOut } from '$lib/takeout';
  import Forms from '$parts/Forms.svelte';
  import KindForm from '$parts/KindForm.svelte';
  import type { Survey } from './survey.svelte';
  import { JIG, WELD } from './texts';

  type Props = { survey: Survey; view: JigView };
  let { survey, view }: Props = $props();
  const works = $derived(view.works);
  const names = $derived(view.points.map((p) => p.name));
  const BODY = formsAt('weld').filter((kind) => kind !== 'gap'); // clearances stand by themselves
  let refusal = $state('');
  let condition = $state({ words: '' });
  let joints = $state('');
  let way = $state<(typeof WELD.ways)[number]>(WELD.ways[0]);
  let reason = $state('');
  let accept = $state({ point: '', why: '' });
  let stand = $state<{ name: string; role: 'carries' | 'locates'; pin: string; hole: string }>({
    name: '',
    role: 'carries',
    pin: '',
    hole: '',
  });
  $effect(() => {
    if (works.joints.length && !joints) joints = works.joints.join('\n');
  });

  async function record(what: What, title: string): Promise<boolean> {
    refusal = await survey.record(what, title);
    return !refusal;
  }
  const weld = (joint: string) =>
    record({ kind: 'happened', version: 1, what: 'weld', corner: null, words: joint, points: prefix(joint) }, joint);
  /** A joint is called by the beginning of its points, spoken or dotted; otherwise it may have moved anything. */
  function prefix(joint: string): string[] {
    const dotted = joint.trim().replaceAll(' ', '.');
    return names.some((n) => n === dotted || n.startsWith(`${dotted}.`)) ? [dotted] : [];
  }
  async function support(): Promise<void> {
    const units = survey.car.view!.plan.units as Parameters<typeof api.read>[2];
    try {
      const [pin, hole] = await Promise.all(
        [stand.pin, stand.hole].map(async (t) => (t.trim() ? (await api.read(t, 'length', units)).value : 0)),
      );
      if (
        await record(
          { kind: 'support_point', version: 1, name: stand.name, role: stand.role, pin: pin!, hole: hole! },
          WELD.support,
        )
      )
        stand = { ...stand, name: '', pin: '', hole: '' };
    } catch (error) {
      refusal = (error as Error).message;
    }
  }
</script>

<Forms label={JIG.tabs.weld}>
  {#if refusal}<p role="alert">{refusal}</p>{/if}
  <fieldset>
    <legend>{WELD.holds}</legend>
    <p class="soft">{WELD.holdsSoft}</p>
    <ul>
      {#each works.holds as hold (hold.condition)}<li>
          <label class="check"
            ><input
              type="checkbox"
              checked={hold.met}
              onchange={(e) =>
                void record(
                  { kind: 'hold', version: 1, condition: hold.condition, met: e.currentTarget.checked, words: '' },
                  hold.condition,
                )}
            />{hold.condition}</label
          >
        </li>{/each}
    </ul>
    <div class="grid two">
      <label>{WELD.another}<input bind:value={condition.words} maxlength="120" /></label><button
        type="button"
        class="button"
        disabled={!condition.words.trim()}
        onclick={() =>
          void takeOut(condition, ['words'], (c) =>
            record({ kind: 'hold', version: 1, condition: c.words.trim(), met: false, words: '' }, c.words),
          )}>{WELD.say}</button
      >
    </div>
  </fieldset>
  <fieldset>
    <legend>{WELD.order}</legend>
    {#each works.order as line (line)}<p><b>{line}</b></p>{/each}
    <ol>
      {#each works.joints as joint (joint)}<li data-done={works.done.includes(joint) || undefined}>
          {joint}
          {#if !works.done.includes(joint)}<button type="button" class="button small" onclick={() => void weld(joint)}
              >{WELD.done}</button
            >{/if}
        </li>{/each}
    </ol>
    <p class="caution">{JIG.weld}</p>
    <label>{WELD.orderSoft}<textarea bind:value={joints} rows="3"></textarea></label>
    <div class="grid three">
      <label
        >{WELD.way}<select bind:value={way}
          >{#each WELD.ways as one (one)}<option>{one}</option>{/each}</select
        ></label
      ><label>{WELD.reason}<input bind:value={reason} maxlength="400" /></label>
      <button
        type="button"
        class="button"
        disabled={!joints.trim()}
        onclick={() =>
          void record(
            {
              kind: 'weld_order',
              version: 1,
              joints: joints
                .split('\n')
                .map((j) => j.trim())
                .filter(Boolean),
              way,
              reason,
            },
            WELD.order,
          )}>{WELD.keep}</button
      >
    </div>
  </fieldset>
  <fieldset>
    <legend>{WELD.accept}</legend>
    <p class="soft">
      {WELD.acceptSoft}
      {#each Object.entries(works.accepted) as [point, why] (point)}{point.replaceAll('.', ' ')}: {why}.
      {/each}
    </p>
    <div class="grid three">
      <label
        >{WELD.point}<select bind:value={accept.point} aria-label={WELD.whichPoint}
          ><option value=""></option>{#each view.pickups.filter((p) => p.off) as p (p.point)}<option value={p.point}
              >{p.say}</option
            >{/each}</select
        ></label
      ><label>{WELD.why}<input bind:value={accept.why} maxlength="400" /></label>
      <button
        type="button"
        class="button"
        disabled={!accept.point}
        onclick={() =>
          void takeOut(accept, ['point', 'why'], (a) =>
            record({ kind: 'accepted', version: 1, point: a.point, reason: a.why }, WELD.accept),
          )}>{WELD.accepted}</button
      >
    </div>
  </fieldset>
  <fieldset>
    <legend>{WELD.gaps}</legend>
    <ul>
      {#each works.gaps as line (line)}<li>{line}</li>{:else}<li class="soft">{WELD.noGaps}</li>{/each}
    </ul>
    <KindForm kind="gap" points={names} button={WELD.read} {record} />
  </fieldset>
  <fieldset>
    <legend>{WELD.body}</legend>{#each works.body as line (line)}<p>{line}</p>{/each}
    <p class="soft">{WELD.bodySoft}</p>
    {#each BODY as kind (kind)}<KindForm {kind} points={names} button={WELD.read} {record} />{/each}
    <div class="grid five">
      <label>{WELD.support}<input bind:value={stand.name} maxlength="60" placeholder={WELD.name} /></label><label
        >&nbsp;<select bind:value={stand.role}
          >{#each Object.entries(WELD.roles) as [k, v] (k)}<option value={k}>{v}</option>{/each}</select
        ></label
      ><label>{WELD.pin}<input class="fig" bind:value={stand.pin} maxlength="20" /></label><label
        >{WELD.hole}<input class="fig" bind:value={stand.hole} maxlength="20" /></label
      >
      <button type="button" class="button" disabled={!stand.name.trim()} onclick={() => void support()}
        >{WELD.read}</button
      >
    </div>
    <p>
      {WELD.bracing}:
      <button
        type="button"
        class="button small"
        onclick={() => void record({ kind: 'bracing', version: 1, braced: true, reason: '' }, WELD.bracing)}
        >{WELD.braced}</button
      >
      <button
        type="button"
        class="button small"
        onclick={() => void record({ kind: 'bracing', version: 1, braced: false, reason: '' }, WELD.bracing)}
        >{WELD.unbraced}</button
      >
    </p>
  </fieldset>
</Forms>

<style>
  ul,
  ol {
    margin: 0;
    padding: 0 0 0 18px;
    font-size: 0.9375rem;
  }
  ul {
    list-style: none;
    padding: 0;
  }
  [data-done] {
    opacity: 0.6;
    text-decoration: line-through;
  }
  .small {
    font-weight: 400;
    padding: 0 10px;
  }
</style>
