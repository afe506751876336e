<script lang="ts">
  // Something that can be turned: what it is, where, and what it moves; its figures are then asked for at the tape, once for both sides.
  import Card from '$parts/form/Card.svelte';
  import Choice from '$parts/form/Choice.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import type { Corner } from '$lib/api/client';
  import AdjusterMoves from '../AdjusterMoves.svelte';
  import { type AdjusterKind, kindOf, newAdjuster, raises } from '../draft';
  import { DRAWN, PLAN } from '../texts';
  import { atCorner, calledOf, pairsOf } from './asks-adjusters';
  import type { PlanDesk } from './plan-desk.svelte';

  type Props = { desk: PlanDesk };
  let { desk }: Props = $props();
  const { draft } = $derived(desk.sheet);
  let kind = $state<AdjusterKind>('tube');
  let where = $state<keyof typeof DRAWN.where>('front');
  let fresh = $state(newAdjuster('tube', []));
  let refusal = $state('');
  const corners = $derived<Corner[]>(where === 'front' ? ['LF', 'RF'] : where === 'rear' ? ['LR', 'RR'] : [where]);
  const pairs = $derived(pairsOf(draft.adjusters, desk.apart));

  function begin(as: AdjusterKind): void {
    fresh = {
      ...newAdjuster(as, []),
      name: fresh.name,
      moves: raises(as) ? null : fresh.moves,
      corner: corners[0]!,
    };
  }
  function settle(): void {
    if (fresh.corner !== corners[0]) [fresh.moves, fresh.corner] = [null, corners[0]!];
  }
  function put(): void {
    refusal = fresh.name.trim() ? '' : DRAWN.putOnFirst;
    if (refusal) return;
    const taken = draft.adjusters.map((a) => a.id);
    const made = corners.map((c) => atCorner($state.snapshot(fresh) as typeof fresh, c, taken));
    draft.adjusters.push(...made);
    fresh = newAdjuster(kind, []);
    settle();
    const first = desk.every.find((a) => a.group === `adjusters.${made[0]!.id}`);
    if (first) desk.open(first.path);
  }
  function takeOut(rows: { id: string }[]): void {
    draft.adjusters = draft.adjusters.filter((a) => !rows.some((r) => r.id === a.id));
    desk.turnTo('adjusters');
  }
</script>

<Card title={PLAN.adjusters} label="">
  {#each pairs as pair (pair.rows[0]!.id)}
    {@const first = desk.every.find((a) => a.group === `adjusters.${pair.rows[0]!.id}`)}
    <p>
      <button type="button" class="button" onclick={() => first && desk.open(first.path)}>{calledOf(pair)}</button>
      <button type="button" class="button" aria-label="{PLAN.remove} {pair.name}" onclick={() => takeOut(pair.rows)}
        >{DRAWN.takeOut}</button
      >
    </p>
  {/each}
  <h3>{DRAWN.newAdjuster}</h3>
  <Row cols={2} top>
    <Choice label={DRAWN.kindLabel} name={DRAWN.kindLabel} options={PLAN.kind} bind:value={kind} onpick={begin} />
    <Choice label={DRAWN.onCorners} name={DRAWN.onCorners} options={DRAWN.where} bind:value={where} onpick={settle} />
    <Text label={PLAN.adjusterName} bind:value={fresh.name} problem={refusal} />
  </Row>
  {#if !raises(kindOf(fresh))}<AdjusterMoves a={fresh} cols={2} />{/if}
  <button type="button" class="button" data-main onclick={put}>{DRAWN.putOn}</button>
</Card>

<style>
  p {
    display: flex;
    gap: 8px;
    margin: 0;
  }
  p button:first-child {
    flex: 1;
    text-align: left;
  }
  .button {
    font-weight: 400;
  }
  h3 {
    font-size: 1rem;
  }
</style>
