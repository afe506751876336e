<script lang="ts">
  // The tape while a place is read.
  import { QUANTITIES } from '$lib/kinds';
  import { practised } from '$parts/tape/practised.svelte';
  import { DESK } from '$parts/texts';
  import type { RoundDesk } from '$parts/tape/round.svelte';
  import Tape from '$parts/tape/Tape.svelte';
  import { SET } from './texts';

  type Props = { desk: RoundDesk };
  let { desk }: Props = $props();
  const { view, ask } = $derived(desk);
  const left = $derived(view.round.filter((a) => desk.wanted(a)).length);
  const hooks = $derived([
    { key: SET.keys.enter, does: SET.next, act: () => desk.enter() },
    { key: SET.keys.again, does: SET.again, hand: SET.hand.again, act: () => desk.enter(true) },
    { key: SET.keys.skip, does: SET.skip, hand: SET.hand.skip, act: () => desk.step(1) },
    { key: SET.keys.strike, does: DESK.strike, act: () => desk.strike() },
    { key: SET.keys.turn, does: SET.turn, hand: SET.hand.turn, act: () => desk.startTurning() },
    { key: `${SET.keys.tool} · ${desk.tool.name}`, does: SET.changeTool, act: () => desk.nextTool() },
    ...(desk.runs
      ? [{ key: SET.keys.half, does: desk.wheel ? DESK.wheel[desk.wheel] : DESK.half, act: () => desk.turnWheel() }]
      : []),
    ...(ask.zero ? [{ key: SET.keys.zero, does: DESK.zeroOther[ask.zero], act: () => desk.rezero() }] : []),
    ...(ask.string === null || (ask.string && ask.quantity !== 'gap_front')
      ? []
      : [
          {
            key: SET.keys.string,
            does: ask.string ? `${DESK.strings} ${DESK.string[ask.string]}` : DESK.strings,
            act: () => desk.restring(),
          },
        ]),
    ...desk.standHooks,
    ...(view.practice ? [{ key: SET.keys.take, does: DESK.take, act: () => void desk.takeFigure() }] : []),
    ...(view.condition.settled
      ? []
      : [{ key: SET.keys.settled, does: DESK.settled, hand: DESK.settledHand, act: () => desk.settled() }]),
  ]);
  const latest = $derived(
    desk.latest(
      (a) => a.corner === ask.corner && a.drawing === ask.drawing,
      (a) => QUANTITIES[a.quantity].short,
    ),
  );
  const where = $derived(`${SET.of(desk.index + 1, desk.asks.length)} · ${SET.toRead(left)}`);
</script>

<Tape
  {desk}
  title={ask.title}
  how={desk.tool.id === DESK.eye.id ? DESK.byEye : ask.how}
  label={SET.figure}
  note={desk.first || where}
  {hooks}
  {latest}
  lesson={{ ...QUANTITIES[ask.quantity], known: practised(ask.quantity) }}
/>
