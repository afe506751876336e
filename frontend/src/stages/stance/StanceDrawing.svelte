<script lang="ts">
  // The car as it stands, from one side and from one end, to scale: chassis, wheels, floor, stands; the wanted stance thin behind.
  import type { CarView, Corner, StanceView } from '$lib/api/client';
  import { CORNER_WORDS, CORNERS, axle, isFront, isLeft, markOf } from '$lib/marks';
  import Dimension from '$parts/drawing/Dimension.svelte';
  import Plate from '$parts/drawing/Plate.svelte';
  import { type Attitude, fixed, type Flat, hull, laid, path, type Point } from './chassis';
  import { DRAWN } from './texts';

  type Props = {
    view: CarView;
    stance: StanceView | null;
    corner: Corner;
    onStands: boolean;
    quantity: string;
    typed?: string;
  };
  let { view, stance, corner, onStands, quantity, typed = '' }: Props = $props();

  const LEVEL: Attitude = { pitch_deg: 0, roll_deg: 0, height: 0 };
  const plan = $derived(view.plan);
  const left = $derived(isLeft(corner));
  const front = $derived(isFront(corner));
  const wanted = $derived(stance?.wanted ?? LEVEL);
  const stood = $derived(stance?.stands ?? { ...wanted, height: wanted.height + 260 });
  const now = $derived(onStands ? stood : (stance?.floor ?? wanted));
  const body = $derived(fixed(plan));
  const high = $derived(Math.max(plan.front.tyre_diameter, plan.rear.tyre_diameter));
  // On the plates: along the car with the nose left on its left side; across it as seen from that end.
  const along = $derived((p: Point): Flat => [(left ? -1 : 1) * p[0], -p[2]]);
  const across = $derived((p: Point): Flat => [(front ? 1 : -1) * p[1], -p[2]]);
  const round = (which: 'floor_round' | 'stand_round', c: Corner, q: string) =>
    view[which].find((a) => a.corner === c && a.quantity === q);
  const wheels = $derived(
    CORNERS.map((c) => {
      const one = stance?.corners.find((s) => s.corner === c);
      const hub = stance?.hubs.find((h) => h.corner === c);
      const at = laid(now, [one?.wheel[0] ?? 0, one?.wheel[1] ?? 0, 0]);
      const z = onStands
        ? (hub?.set_at ?? hub?.at ?? (one?.radius ?? 300) + 260)
        : (one?.radius ?? axle(view, c).tyre_diameter / 2);
      return {
        c,
        at: [at[0], at[1], z] as Point,
        r: one?.radius ?? axle(view, c).tyre_diameter / 2,
        rim: axle(view, c).rim_flange_diameter / 2,
        hub,
        latest: round('stand_round', c, 'hub')?.latest ?? '',
      };
    }),
  );
  const top = $derived(Math.max(...body.map((p) => laid(now, p)[2]), ...wheels.map((w) => w.at[2] + w.r)));
  const HEAD = $derived(onStands ? 150 : 40); // mm over the car
  const WORDS = 210; // mm under the floor for the figures
  const sideBox = $derived.by(() => {
    const xs = [
      ...body.map((p) => along(p)[0]),
      along([high / 2, 0, 0])[0],
      along([-plan.wheelbase - high / 2, 0, 0])[0],
    ];
    const [low, far] = [Math.min(...xs) - 60, Math.max(...xs) + 60];
    return { x: low, y: -top - HEAD, w: far - low, h: top + HEAD + WORDS };
  });
  const wide = $derived(axle(view, corner).track + 330);
  const endBox = $derived({ x: -wide / 2, y: -top - HEAD, w: wide, h: top + HEAD + WORDS });
  const places = $derived(
    CORNERS.map((c) => {
      const named = plan.heights.find((h) => h.corner === c);
      const mark = markOf(view, `${c}.height`);
      const at: Point = [
        named?.station ?? (isFront(c) ? 0 : -plan.wheelbase),
        named?.offset ?? ((isLeft(c) ? 1 : -1) * axle(view, c).track) / 2,
        named?.height ?? mark.aim?.aim ?? 120,
      ];
      const ask = onStands ? round('stand_round', c, 'stand') : round('floor_round', c, 'height');
      const lit = c === corner && (quantity === 'height' || quantity === 'stand');
      return {
        c,
        at: laid(now, at),
        name: named?.name ?? '',
        lit,
        text: lit && typed ? typed : (ask?.latest ?? ''),
        off: onStands ? '' : mark.do,
      };
    }),
  );
  const stands = $derived(
    (plan.footing.stands?.length
      ? plan.footing.stands
      : plan.heights.map((h) => ({ ...h, height: h.height ?? 80 }))
    ).map((s) => laid(now, [s.station, s.offset, s.height])),
  );
  const loads = $derived((c: Corner) => stance?.corners.find((s) => s.corner === c)?.load ?? '');
</script>

{#snippet chassis(flat: (p: Point) => Flat)}
  <path
    class="wanted"
    d={path(hull(body.map((p) => flat(laid(onStands ? { ...wanted, height: now.height } : wanted, p)))))}
  />
  <path class="body" d={path(hull(body.map((p) => flat(laid(now, p)))))} />
{/snippet}

<div class="pair">
  <Plate label={DRAWN.side(left)} box={sideBox} note={DRAWN.side(left)} noteOnTop>
    {#snippet children(px)}
      <path class="line" d="M{sideBox.x} 0H{sideBox.x + sideBox.w}" />
      {@render chassis(along)}
      {#if onStands}{#each stands as s, i (i)}{@const [x, y] = along(s)}<path
            class="stand"
            d="M{x} {y}L{x - 60} 0H{x + 60}Z"
          />{/each}{/if}
      {#each wheels.filter((w) => isLeft(w.c) === left) as w (w.c)}
        {@const [x, y] = along(w.at)}
        <circle class={onStands ? 'ghost' : 'line'} cx={x} cy={y} r={w.r} /><circle
          class="thin"
          cx={x}
          cy={y}
          r={onStands ? 46 : w.rim}
        />
        {#if onStands}
          <!-- Strings between opposite bolt holes cross in the hub centre. -->
          <path
            class={w.c === corner && quantity === 'hub' ? 'now' : 'dim'}
            d="M{x - 46} {y - 46}L{x + 46} {y + 46}M{x + 46} {y - 46}L{x - 46} {y + 46}"
          />
          {@const out = (x < along([-plan.wheelbase / 2, 0, 0])[0] ? -1 : 1) * w.r * 0.86}
          <Dimension x1={x + out} y1={0} x2={x + out} y2={y} {px} now={w.c === corner && quantity === 'hub'} />
          <path class="dim" d="M{x} {y}H{x + out}" />
          <text
            class="fig"
            style:font-family="Figure"
            class:now-word={w.c === corner && quantity === 'hub'}
            font-size={17 * px}
            text-anchor="middle"
            x={x + out}
            y={22 * px}>{w.c === corner && quantity === 'hub' && typed ? typed : w.latest || w.hub?.wanted || '…'}</text
          >
          <text class="dim-word" font-size={13 * px} text-anchor="middle" {x} y={y - w.r - 8 * px}
            >{CORNER_WORDS[w.c]}{w.latest ? `: ${w.hub?.gives_short ?? ''}` : w.hub ? `, ${DRAWN.toSet}` : ''}</text
          >
        {:else}<path class="dim" d="M{x} {y - 10 * px}v{20 * px}M{x - 10 * px} {y}h{20 * px}" />{/if}
      {/each}
      {#each places.filter((p) => isLeft(p.c) === left) as p (p.c)}
        {@const [x, y] = along(p.at)}
        <Dimension x1={x} y1={0} x2={x} y2={y} {px} now={p.lit} />
        {@const inward = x < along([-plan.wheelbase / 2, 0, 0])[0] ? 1 : -1}
        <text
          class="fig"
          class:now-word={p.lit}
          style:font-family="Figure"
          font-size={(p.lit ? 26 : 20) * px}
          text-anchor={inward > 0 ? 'start' : 'end'}
          x={x + inward * (onStands ? 10 : 0) * px}
          y={26 * px}>{p.text || '…'}</text
        >
        <text
          class:now-word={p.lit}
          class:dim-word={!p.lit}
          font-size={13 * px}
          text-anchor={inward > 0 ? 'start' : 'end'}
          x={x + inward * 4 * px}
          y={44 * px}>{p.off || (onStands ? p.name : CORNER_WORDS[p.c])}</text
        >
      {/each}
    {/snippet}
  </Plate>
  <Plate label={DRAWN.end(front)} box={endBox} note={DRAWN.end(front)} noteOnTop>
    {#snippet children(px)}
      <path class="line" d="M{endBox.x} 0H{endBox.x + endBox.w}" />
      {@render chassis(across)}
      {#if onStands}{#each stands as s, i (i)}{@const [x, y] = across(s)}<path
            class="stand"
            d="M{x} {y}L{x - 50} 0H{x + 50}Z"
          />{/each}{/if}
      {#each wheels.filter((w) => isFront(w.c) === front) as w (w.c)}
        {@const [x, y] = across(w.at)}
        <rect
          class={onStands ? 'ghost' : 'line'}
          x={x - w.r * 0.36}
          y={y - w.r}
          width={w.r * 0.72}
          height={2 * w.r}
          rx={w.r * 0.16}
        />
        <path class="dim" d="M{x - 9 * px} {y}h{18 * px}M{x} {y - 9 * px}v{18 * px}" />
        <text font-size={15 * px} text-anchor="middle" {x} y={24 * px}>{CORNER_WORDS[w.c]}</text>
        <text
          class="fig"
          class:now-word={w.c === corner && quantity === 'load'}
          style:font-family="Figure"
          font-size={17 * px}
          text-anchor="middle"
          {x}
          y={44 * px}>{w.c === corner && quantity === 'load' && typed ? typed : onStands ? '' : loads(w.c)}</text
        >
      {/each}
      {#each places.filter((p) => isFront(p.c) === front) as p (p.c)}
        {@const [x, y] = across(p.at)}
        <Dimension x1={x} y1={0} x2={x} y2={y} {px} now={p.lit} />
      {/each}
    {/snippet}
  </Plate>
</div>

<style>
  .pair {
    display: grid;
    grid-template-rows: minmax(0, 1fr) minmax(0, 1fr);
    gap: var(--gap-3);
    min-height: 0;
    min-width: 0;
  }
  .pair :global(figure) {
    min-height: 190px;
  }
  .body {
    fill: rgb(238 242 251 / 0.07);
    stroke: var(--scribe);
    stroke-width: 1.6;
    vector-effect: non-scaling-stroke;
  }
  .wanted {
    fill: none;
    stroke: var(--paint-light);
    stroke-width: 1;
    vector-effect: non-scaling-stroke;
    stroke-dasharray: 6 4;
  }
  .ghost {
    fill: none;
    stroke: var(--scribe-dim);
    stroke-width: 1.2;
    stroke-dasharray: 4 5;
    vector-effect: non-scaling-stroke;
  }
  .stand {
    fill: rgb(169 185 222 / 0.16);
    stroke: var(--scribe-dim);
    stroke-width: 1.4;
    vector-effect: non-scaling-stroke;
  }
  @media (max-width: 1000px) {
    .pair {
      grid-template-rows: 260px 260px;
    }
  }
</style>
