<script lang="ts">
  // Stage Set: the drawing of what is read now, the corner in hand, and the tape.
  import { QUANTITIES } from '$lib/kinds';
  import type { Car } from '$lib/car.svelte';
  import { CORNER_WORDS } from '$lib/marks';
  import type { Waiting } from '$lib/outbox.svelte';
  import { router } from '$lib/router.svelte';
  import AxleBehind from '$parts/drawing/AxleBehind.svelte';
  import CarAbove from '$parts/drawing/CarAbove.svelte';
  import SideView from '$parts/drawing/SideView.svelte';
  import WheelAbove from '$parts/drawing/WheelAbove.svelte';
  import Tape from '$parts/Tape.svelte';
  import CornerFigures from './CornerFigures.svelte';
  import { Desk, type Work } from '$parts/desk.svelte';
  import { DESK } from '$parts/texts';
  import Round from './Round.svelte';
  import { SET } from './texts';
  import Turns from './Turns.svelte';

  type Props = { car: Car };
  let { car }: Props = $props();

  const work: Work = {
    base: 'set',
    asks: (v, place) =>
      place[1] === 'pad' && !v.round.some((a) => a.quantity === 'pad') ? [...v.pads, ...v.round] : v.round,
    adjusters: (v, corner) => v.corners[corner].adjusters,
    told: (v, corner) => v.corners[corner].turns,
  };
  // svelte-ignore state_referenced_locally (a new car makes a new page)
  const desk = new Desk(
    car,
    () => router.parts.slice(3),
    () => work,
  );
  const view = $derived(desk.view);
  const ask = $derived(desk.ask);
  const answer = $derived(view.corners[desk.corner]);
  const left = $derived(view.round.filter((a) => desk.wanted(a)).length);
  const typed = $derived(desk.preview?.said ?? desk.typed);
  const mine = $derived(
    view.round
      .filter((a) => a.corner === ask.corner && a.drawing === ask.drawing)
      .map((a) => ({
        name: QUANTITIES[a.quantity].short,
        say: a.repeats ? `${a.latest}${a.repeats > 1 ? ` ×${a.repeats}` : ''}${a.wanted ? ' ?' : ''}` : '…',
        now: a.quantity === ask.quantity,
      })),
  );
  const caution = $derived(
    desk.turning
      ? (desk.preview?.caution ?? answer.turns.find((t) => t.adjuster === desk.adjuster?.id)?.caution ?? '')
      : '',
  );
  const refused = $derived({
    rows: car.refused,
    retype: (row: Waiting) => desk.retype(row),
    again: (row: Waiting) => car.again(row),
    discard: (row: Waiting) => car.discard(row.entry.id),
  });
  const common = $derived([{ key: SET.keys.strike, does: DESK.strike, act: () => desk.strike() }]);
  const readHooks = $derived([
    { key: SET.keys.enter, does: SET.next, act: () => desk.enter() },
    { key: SET.keys.again, does: SET.again, act: () => desk.enter(true) },
    { key: SET.keys.skip, does: SET.skip, act: () => desk.step(1) },
    ...common,
    { key: SET.keys.turn, does: SET.turn, act: () => desk.startTurning() },
    { key: `${SET.keys.tool} · ${desk.tool.name}`, does: SET.changeTool, act: () => desk.nextTool() },
    ...(view.condition.settled ? [] : [{ key: SET.keys.settled, does: DESK.settled, act: () => desk.settled() }]),
  ]);
  const turnHooks = $derived([
    { key: SET.keys.enter, does: SET.turnKeys, act: () => desk.enter() },
    { key: SET.keys.skip, does: SET.otherAdjuster, act: () => desk.step(1) },
    ...common,
    { key: SET.keys.measure, does: SET.measure, act: () => desk.startMeasuring() },
  ]);
</script>

<main>
  {#if desk.turning || ask.drawing === 'above'}<CarAbove
      {view}
      lit={desk.corner}
      pads={!desk.turning && ask.quantity === 'pad'}
    />
  {:else if ask.drawing === 'behind'}<AxleBehind {view} corner={ask.corner} {typed} />
  {:else if ask.drawing === 'side'}<SideView {view} corner={ask.corner} {typed} />
  {:else}<WheelAbove {view} corner={ask.corner} quantity={ask.quantity} {typed} />{/if}

  <div class="card side">
    <Round {desk} />
    <CornerFigures {view} corner={desk.corner} brief={desk.turning} />
    <Turns
      {answer}
      slug={car.slug}
      title="{CORNER_WORDS[desk.corner]}: adjusters"
      now={desk.turning ? desk.adjuster?.id : undefined}
      onpick={(id) => desk.openTurn(desk.corner, id)}
    />
  </div>

  {#if desk.turning && desk.adjuster}
    <Tape
      title={DESK.turnTitle(CORNER_WORDS[desk.corner], desk.adjuster.name)}
      how={SET.turnHow(desk.adjuster.say_how, desk.adjuster.say_room)}
      {caution}
      label={SET.turned}
      value={desk.typed}
      placeholder={desk.amountTold?.say ?? `1t2f ${desk.adjuster.ways[0]}`}
      means={desk.preview ? `${desk.preview.said} · ${desk.preview.means}` : ''}
      refusal={desk.refusal}
      note={desk.note || (desk.amountTold ? SET.asTold : '')}
      hooks={turnHooks}
      oninput={(t) => desk.type(t)}
      onenter={(again) => desk.enter(again)}
      onstep={(by) => desk.step(by)}
      onkey={(k) => desk.key(k)}
      {refused}
    />
  {:else if desk.turning}
    <Tape
      title={SET.noAdjusters}
      how=""
      label={SET.turned}
      value=""
      hooks={turnHooks}
      oninput={() => {}}
      onenter={() => {}}
      onstep={() => {}}
      onkey={(k) => desk.key(k)}
      {refused}
    />
  {:else}
    <Tape
      title={ask.title}
      how={ask.how}
      label={SET.figure}
      value={desk.typed}
      means={desk.preview ? `${desk.preview.said} · ${desk.preview.means}` : ''}
      large={desk.preview?.large ?? ''}
      state={desk.preview?.state ?? null}
      refusal={desk.refusal}
      note={desk.note ||
        (view.condition.settled
          ? `${SET.of(desk.index + 1, desk.asks.length)} · ${SET.toRead(left)}`
          : SET.settleFirst)}
      hooks={readHooks}
      readings={mine}
      oninput={(t) => desk.type(t)}
      onenter={(again) => desk.enter(again)}
      onstep={(by) => desk.step(by)}
      onkey={(k) => desk.key(k)}
      {refused}
    />
  {/if}
</main>

<style>
  main {
    display: grid;
    grid-template-columns: minmax(0, 47fr) minmax(0, 53fr);
    grid-template-rows: minmax(0, 1fr) auto;
    gap: var(--gap-3);
    padding: var(--gap-3);
    height: calc(100vh - 64px);
    min-height: 600px;
  }
  main > :global(.tape) {
    grid-column: 1 / -1;
  }
  .side {
    overflow: auto;
    display: grid;
    gap: 7px;
    align-content: start;
    padding-top: 10px;
  }
</style>
