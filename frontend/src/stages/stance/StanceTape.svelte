<script lang="ts">
  // The tape at stage Stance: heights, loads and pads on the floor, hubs and chassis on stands, perches turned.
  import { QUANTITIES } from '$lib/kinds';
  import { practised } from '$parts/tape/practised.svelte';
  import { CORNER_WORDS } from '$lib/marks';
  import { DESK } from '$parts/texts';
  import Tape from '$parts/tape/Tape.svelte';
  import type { Standing } from './standing.svelte';
  import { STANCE } from './texts';

  type Props = { standing: Standing };
  let { standing }: Props = $props();
  const { desk, tab } = $derived(standing);
  const ask = $derived(desk.ask);
  const told = $derived(desk.turning ? desk.amountTold : undefined);
  const unsettled = $derived(tab === 'floor' && !standing.car.view!.condition.settled);
  const jacking = $derived(tab === 'floor' && ask?.quantity === 'height' && desk.preview?.large);
  const common = $derived([
    { key: 'Enter', does: STANCE.keys[desk.turning ? 'turn' : 'next'], act: () => desk.enter() },
    { key: '↓ ↑', does: STANCE.keys[desk.turning ? 'other' : 'skip'], hand: 'skip', act: () => desk.step(1) },
    { key: '⌫', does: DESK.strike, act: () => desk.strike() },
  ]);
  const turning = $derived([...common, { key: 'M', does: STANCE.keys.read, act: () => desk.startMeasuring() }]);
  const reading = $derived([
    ...common,
    ...(unsettled ? [{ key: 'S', does: DESK.settled, hand: DESK.settledHand, act: () => desk.settled() }] : []),
    ...(tab === 'floor' ? desk.standHooks : []),
    ...(tab === 'floor' ? [{ key: 'T', does: STANCE.keys.perch, act: () => desk.startTurning() }] : []),
    ...(desk.view.practice ? [{ key: 'F', does: DESK.take, act: () => void desk.takeFigure() }] : []),
    {
      key: 'U',
      does: STANCE.keys.tool(desk.tool.name.toLowerCase()),
      hand: STANCE.keys.toolHand,
      act: () => desk.nextTool(),
    },
  ]);
  const latest = $derived(
    desk.latest(
      (a) => a.quantity === ask?.quantity,
      (a) => CORNER_WORDS[a.corner],
    ),
  );
</script>

{#if desk.turning}
  <Tape
    {desk}
    title={DESK.turnTitle(CORNER_WORDS[desk.corner], desk.adjuster?.name ?? '')}
    how={desk.adjuster ? `${desk.adjuster.say_how}; ${desk.adjuster.say_room}` : STANCE.noTurn}
    caution={told?.caution ?? ''}
    label={STANCE.turned}
    placeholder={told?.say ?? '1t2f up'}
    note={told ? STANCE.asTold : STANCE.noTurn}
    told={Boolean(told)}
    hooks={turning}
  />
{:else}
  <Tape
    {desk}
    title={ask.title}
    how={ask.how}
    lesson={{ ...QUANTITIES[ask.quantity], known: practised(ask.quantity) }}
    typing={jacking ? STANCE.jacking : ''}
    label={ask.title}
    note={tab === 'floor' ? desk.first : ''}
    hooks={reading}
    {latest}
  />
{/if}
