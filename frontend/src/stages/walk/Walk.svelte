<script lang="ts">
  // The overview of every mark on the car, and the one thing to do next.
  import type { Corner, MarkView } from '$lib/api/client';
  import type { Car } from '$lib/car.svelte';
  import { CORNER_KINDS, cornerName, markKindOf, MARK_KINDS, WHOLE_MARKS, wholeName } from '$lib/kinds';
  import { CORNER_WORDS, CORNERS, markOf } from '$lib/marks';
  import { router } from '$lib/router.svelte';
  import CarAbove from '$parts/drawing/CarAbove.svelte';
  import MarkCell from './MarkCell.svelte';
  import { WALK } from './texts';

  type Props = { car: Car };
  let { car }: Props = $props();

  const view = $derived(car.view!);
  const base = $derived(`/cars/${car.slug}`);
  const whole = $derived(WHOLE_MARKS.map((m) => markOf(view, m)).filter((m) => m.aim || m.value !== null));

  const open = (corner: Corner, mark?: MarkView) => {
    const kind = mark ? markKindOf(mark.mark) : 'height';
    router.go(`${base}/set/${corner}/${MARK_KINDS[kind]!.read}`);
  };

  const SAID = { settle: 'settled', reconnect: 'bar_on', disconnect: 'bar_off' } as const;
  function go(): void {
    const { kind, corner, quantity } = view.next;
    if (kind === 'settle' || kind === 'reconnect' || kind === 'disconnect')
      car.record({ kind: 'happened', version: 1, what: SAID[kind], words: '', points: [] }, view.next.sentence);
    else if (kind === 'state') router.go(`${base}/stance`);
    else if (kind === 'plan') router.go(`${base}/plan`);
    else if (kind === 'done') router.go(`${base}/log`);
    else if (kind === 'perch' || kind === 'turn' || kind === 'try') {
      const perch = kind === 'perch' ? view.corners[corner!].adjusters.find((a) => a.kind === 'perch') : undefined;
      const first =
        perch?.id ??
        view.corners[corner!].turns.find((t) => t.amount !== 0)?.adjuster ??
        view.corners[corner!].adjusters.find((a) => a.kind !== 'perch')?.id;
      router.go(
        perch
          ? `${base}/stance/floor/${corner}/turn/${perch.id}`
          : first
            ? `${base}/set/${corner}/turn/${first}`
            : `${base}/set/${corner}/${quantity ?? 'height'}`,
      );
    } else if (quantity === 'load') router.go(`${base}/stance/floor/${corner}/load`);
    else router.go(corner ? `${base}/set/${corner}/${quantity ?? 'height'}` : `${base}/set`);
  }
</script>

<main>
  <CarAbove {view} lit={view.next.corner} onpick={(corner) => open(corner)} />
  <div class="card board">
    <h1>
      {WALK.title}
      <span
        >· {view.judged ? WALK.hold(view.holding, view.judged) : WALK.none}{view.condition.settled
          ? ''
          : ` · ${WALK.unsettled}`}{view.condition.bar_connected ? '' : ` · ${WALK.bar}`}</span
      >
    </h1>
    {#each view.notices as notice (notice)}<p class="notice" role="alert">{notice}</p>{/each}
    <table>
      <thead
        ><tr
          ><th></th>{#each CORNERS as corner (corner)}<th scope="col">{CORNER_WORDS[corner]}</th>{/each}</tr
        ></thead
      >
      <tbody>
        {#each CORNER_KINDS as kind (kind)}
          <tr>
            <th scope="row">{cornerName(kind)}</th>
            {#each CORNERS as corner (corner)}
              {@const mark = markOf(view, `${corner}.${kind}`)}
              <td><MarkCell {mark} label="{CORNER_WORDS[corner]} {kind}" onpick={() => open(corner, mark)} /></td>
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
    {#if whole.length}
      <h2>{WALK.whole}</h2>
      <div class="whole">
        {#each whole as mark (mark.mark)}
          <div><small>{wholeName(mark.mark)}</small><MarkCell {mark} label={wholeName(mark.mark) ?? ''} /></div>
        {/each}
      </div>
    {/if}
  </div>
  <section class="card next" aria-label={WALK.next} data-done={view.next.kind === 'done' || undefined}>
    <div>
      <h2>{view.next.sentence}</h2>
      <p>{view.next.reason}</p>
    </div>
    <button type="button" class="button" data-main onclick={go}>{WALK.go[view.next.kind]}</button>
  </section>
</main>

<style>
  main {
    display: grid;
    grid-template-columns: minmax(0, 40fr) minmax(0, 60fr);
    grid-template-rows: minmax(0, 1fr) auto;
    gap: var(--gap-3);
    padding: var(--gap-3);
    height: calc(100vh - 64px);
    min-height: 600px;
  }
  .board {
    overflow: auto;
  }
  .notice {
    color: var(--rust);
  }
  h1 {
    font-size: 1.0625rem;
  }
  h1 span {
    font-weight: 400;
    color: var(--ink-soft);
  }
  table {
    border-collapse: collapse;
    width: 100%;
    margin-top: 6px;
    table-layout: fixed;
  }
  thead th {
    font-weight: 400;
    color: var(--ink-soft);
    text-align: left;
    font-size: var(--type-small);
    padding: 4px 2px;
  }
  th:first-child {
    width: 74px;
  }
  tbody th {
    text-align: left;
    font-weight: 700;
  }
  tbody tr {
    border-top: 1px solid var(--edge);
  }
  td {
    padding: 4px 2px;
    height: 84px;
    vertical-align: middle;
  }
  .board h2 {
    font-size: 1rem;
    border-top: 1px solid var(--edge);
    padding-top: 8px;
  }
  .whole {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(195px, 1fr));
    gap: 6px 12px;
    margin-top: 4px;
  }
  small {
    color: var(--ink-soft);
    font-size: 0.8125rem;
  }
  .next {
    grid-column: 1 / -1;
    border-left: 10px solid var(--paint);
    display: grid;
    grid-template-columns: minmax(0, 1fr) 240px;
    gap: var(--gap-4);
    align-items: center;
    min-height: 118px;
  }
  .next[data-done] {
    border-left-color: var(--layout);
  }
  .next h2 {
    font-size: var(--type-head);
  }
  .next p {
    margin-top: 4px;
    color: var(--ink-soft);
    max-width: 62em;
  }
  .next .button {
    min-height: 64px;
    font-size: 1.1875rem;
  }
</style>
