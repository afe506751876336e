<script lang="ts">
  // The tape while adjusters are turned.
  import { capital } from '$lib/kinds';
  import { CORNER_WORDS } from '$lib/marks';
  import { DESK } from '$parts/texts';
  import type { RoundDesk } from '$parts/tape/round.svelte';
  import Tape from '$parts/tape/Tape.svelte';
  import { SET } from './texts';

  type Props = { desk: RoundDesk };
  let { desk }: Props = $props();
  const adjuster = $derived(desk.adjuster);
  const told = $derived(desk.told.find((t) => t.adjuster === adjuster?.id));
  const how = $derived.by(() => {
    if (!adjuster) return '';
    const rest = told?.then ? SET.liftHow(told.then, adjuster.room) : SET.turnHow(adjuster.say_how, adjuster.say_room);
    return [told?.seen, rest]
      .filter((words) => words)
      .map((words) => capital(words!))
      .join('. ');
  });
  const hooks = $derived([
    { key: SET.keys.enter, does: SET.turnKeys, act: () => desk.enter() },
    { key: SET.keys.skip, does: SET.otherAdjuster, hand: SET.hand.other, act: () => desk.step(1) },
    { key: SET.keys.strike, does: DESK.strike, act: () => desk.strike() },
    { key: SET.keys.stuck, does: SET.stuck, act: () => desk.stuck() },
    { key: SET.keys.measure, does: SET.measure, hand: SET.hand.read, act: () => desk.startMeasuring() },
  ]);
</script>

{#if adjuster}
  <Tape
    {desk}
    title={DESK.turnTitle(CORNER_WORDS[desk.corner], adjuster.name)}
    {how}
    large={desk.amountTold?.say ?? ''}
    caution={told?.caution ?? ''}
    label={SET.turned}
    placeholder={desk.amountTold?.say ?? `1t2f ${adjuster.ways[0]}`}
    note={desk.amountTold ? SET.asTold : ''}
    {hooks}
  />
{:else}<Tape {desk} title={SET.noAdjusters} how="" label={SET.turned} {hooks} closed />{/if}
