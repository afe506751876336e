<script lang="ts">
  // The tape of a stage while it asks for figures of the plan; what is given goes into the plan with one key.
  import { untrack } from 'svelte';
  import { router } from '$lib/router.svelte';
  import Tape from '$parts/tape/Tape.svelte';
  import { layOut, Sheet } from '../sheet.svelte';
  import { DRAWN, HERE } from '../texts';
  import { isAt, PlanDesk } from '../drawn/plan-desk.svelte';
  import { asksOf } from '../drawn/asks';
  import { bay } from '../drawn/asks-bay';
  import { BAY, type Here } from './here.svelte';

  type Props = { here: Here };
  let { here }: Props = $props();
  const sheet = layOut(new Sheet(untrack(() => here.car)));
  const path = untrack(() => here.path);

  class HereDesk extends PlanDesk {
    protected override letters() {
      return { ...super.letters(), ...(this.ask.kind === 'words' ? {} : { p: () => this.keep() }), Escape: back };
    }
    override get hooks() {
      return [
        ...super.hooks,
        { key: 'P', does: HERE.keep, hand: HERE.keepHand, act: () => void this.keep() },
        { key: 'Esc', does: HERE.back, hand: HERE.backHand, act: back },
      ];
    }
  }
  const desk = new HereDesk(sheet, (...of) =>
    path === BAY ? bay(of[0]) : asksOf(...of).filter((ask) => isAt(ask, path)),
  );
  sheet.kept = () => here.done();

  $effect(() => void (here.now = desk.every.length ? desk.ask.path : ''));
  const back = () => void sheet.leave().then(() => here.done());
  $effect(() => {
    const first = desk.every[0];
    // What no figure says is given in the plan itself; how the wheels are held must be known before it can be told.
    if (!first && sheet.layouts.length) untrack(() => (here.done(), router.go(`/cars/${here.car.slug}/plan`)));
    else if (first && !untrack(() => desk.begun)) untrack(() => desk.openAt(path));
  });
</script>

{#if desk.every.length}
  <Tape
    {desk}
    title={desk.ask.title}
    how={desk.ask.how}
    label={DRAWN.figure}
    placeholder={desk.like}
    caution={sheet.sentence}
    note={desk.shown(desk.ask) || DRAWN.unitOf(desk.ask.kind, sheet.draft.units.system ?? 'mm')}
    hooks={desk.hooks}
  />
{/if}
