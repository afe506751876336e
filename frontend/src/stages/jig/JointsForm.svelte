<script lang="ts">
  // The order of the joints: why this one, which are done, and a new order.
  import type { JigView, What } from '$lib/api/client';
  import Choice from '$parts/form/Choice.svelte';
  import Folded from '$parts/form/Folded.svelte';
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import { type JigForms, pointsOf } from './jig-forms.svelte';
  import { JIG, WELD } from './texts';

  type Props = { forms: JigForms; works: JigView['works'] };
  let { forms, works }: Props = $props();
  let joints = $state('');
  let way = $state<(typeof WELD.ways)[number]>(WELD.ways[0]);
  let reason = $state('');
  // What was kept stands in the form until something else is typed over it.
  $effect(() => {
    if (!works.joints.length || joints) return;
    joints = works.joints.join('\n');
    way = works.way;
    reason = works.reason;
  });

  let where = $state<Record<string, string>>({});
  /** Where a joint is: by its words, or as it was said. */
  const at = (joint: string) => where[joint] || forms.partOf(joint);
  const opens = (part: string) => WELD.opens(forms.places[part]!, forms.opens(part));

  function weld(joint: string): void {
    const points = pointsOf(at(joint));
    const what: What = { kind: 'happened', version: 1, what: 'weld', corner: null, words: joint, points };
    void forms.record(what, joint);
  }
  function keep(): void {
    const order = joints
      .split('\n')
      .map((j) => j.trim())
      .filter(Boolean);
    void forms.record({ kind: 'weld_order', version: 1, joints: order, way, reason }, WELD.order);
  }
</script>

<Group title={WELD.order}>
  {#each works.order as line, i (i)}<p><b>{line}</b></p>{/each}
  <ol>
    {#each works.joints as joint, i (i)}
      {@const done = works.done.includes(joint)}
      <li data-done={done || undefined}>
        {joint}
        {#if !done}
          {@const part = at(joint)}
          <button type="button" class="button" disabled={!part} onclick={() => weld(joint)}>{WELD.done}</button>
          {#if forms.partOf(joint)}<small>{opens(part)}</small>
          {:else}
            <Choice
              label={JIG.where}
              options={forms.places}
              empty={JIG.chooseWhere}
              bind:value={() => where[joint] ?? '', (v) => (where[joint] = v)}
            />
            <small>{part ? opens(part) : WELD.nowhere}</small>
          {/if}
        {/if}
      </li>
    {/each}
  </ol>
  <p class="caution">{JIG.weld}</p>
  <Folded title={WELD.newOrder}>
    <Text label={WELD.orderSoft} bind:value={joints} rows={3} max={4000} />
    <Row cols={2} end>
      <Choice label={WELD.way} options={WELD.ways} bind:value={way} />
      <Text label={WELD.reason} bind:value={reason} max={400} />
      <button type="button" class="button" disabled={!joints.trim()} onclick={keep}>{WELD.keep}</button>
    </Row>
  </Folded>
</Group>

<style>
  ol {
    margin: 0;
    padding: 0 0 0 18px;
    font-size: 0.9375rem;
  }
  [data-done] {
    opacity: 0.6;
    text-decoration: line-through;
  }
  small {
    display: block;
    color: var(--ink-soft);
    font-size: var(--type-small);
  }
  li .button {
    font-weight: 400;
    padding: 0 10px;
  }
</style>
