<script lang="ts">
  // Stage Travel: what the wheels do over travel, steering and roll; what if something moved; which levers move a figure.
  import { untrack } from 'svelte';
  import type { Car } from '$lib/car.svelte';
  import { link } from '$lib/router.svelte';
  import Plot from '$parts/Plot.svelte';
  import { Bench, type End, type Over } from './bench.svelte';
  import Figures from './Figures.svelte';
  import Levers from './Levers.svelte';
  import { TRAVEL } from './texts';
  import Measured from './Measured.svelte';
  import WhatIf from './WhatIf.svelte';

  type Props = { car: Car };
  let { car }: Props = $props();

  const bench = new Bench(
    untrack(() => car.slug),
    untrack(() => car.view?.plan.units.system !== 'mm'),
  );
  const plan = $derived(car.view!.plan);
  const linkage = $derived(bench.end === 'front' ? plan.front_linkage : plan.rear_linkage);
  const overs = $derived(
    (['travel', 'steer', 'roll'] as Over[]).filter((o) => o !== 'steer' || (linkage && linkage.steering !== 'none')),
  );
  $effect(() => {
    void car.view?.plan_number; // a plan revised is drawn anew, and so is a car measured
    bench.surveyed = car.view?.surveyed ?? [];
    untrack(() => void bench.ask());
  });

  let measuring = $state(false);
  let svg = $state<SVGSVGElement>();
  const same = (a: (number | null)[], b: (number | null)[]) =>
    a.every((v, i) => Math.abs((v ?? 0) - (b[i] ?? 0)) < 1e-7);
  const lines = $derived.by(() => {
    const [curve, after, made] = [bench.curve, bench.after, bench.asBuilt];
    if (!curve) return [];
    const two = curve.right && !same(curve.left, curve.right);
    return [
      { name: two ? TRAVEL.left : curve.right ? `${TRAVEL.left} = ${TRAVEL.right}` : '', values: curve.left },
      ...(two ? [{ name: TRAVEL.right, values: curve.right!, dashed: true }] : []),
      ...(made ? [{ name: TRAVEL.built, values: made.left, built: true }] : []),
      ...(made?.right && !same(made.left, made.right) && !same(made.right, curve.right ?? [])
        ? [{ name: '', values: made.right, built: true, dashed: true }]
        : []),
      ...(after ? [{ name: TRAVEL.changed, values: after.left, bright: true }] : []),
      ...(after?.right && !same(after.left, after.right) && !same(after.right, curve.right ?? [])
        ? [{ name: '', values: after.right, bright: true, dashed: true }]
        : []),
    ];
  });
  const end = (e: End) =>
    bench.show(
      e,
      e === 'front' && bench.over === 'steer' && plan.front_linkage?.steering === 'none'
        ? 'travel'
        : bench.over === 'steer' && e === 'rear'
          ? 'travel'
          : bench.over,
    );

  function save(name: string, type: string, content: BlobPart): void {
    const at = URL.createObjectURL(new Blob([content], { type }));
    Object.assign(document.createElement('a'), { href: at, download: `${car.slug}-${bench.end}-${name}` }).click();
    setTimeout(() => URL.revokeObjectURL(at), 1000);
  }
  const drawing = () => new XMLSerializer().serializeToString(svg!);
  function png(): void {
    const image = new Image();
    image.onload = () => {
      const canvas = Object.assign(document.createElement('canvas'), {
        width: image.width * 2,
        height: image.height * 2,
      });
      canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
      canvas.toBlob((blob) => blob && save(`${bench.answer}.png`, 'image/png', blob));
    };
    image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(drawing())}`;
  }
</script>

<main data-wide={(bench.built && bench.moved) || undefined}>
  <div class="bar">
    <div role="group" aria-label={TRAVEL.title}>
      {#each Object.entries(TRAVEL.ends) as [e, name] (e)}<button
          type="button"
          class="button"
          aria-pressed={bench.end === e}
          onclick={() => end(e as End)}>{name}</button
        >{/each}
    </div>
    <div role="group" aria-label={TRAVEL.range}>
      {#each overs as over (over)}<button
          type="button"
          class="button"
          aria-pressed={bench.over === over}
          onclick={() => bench.show(bench.end, over)}>{TRAVEL.over[over]}</button
        >{/each}
    </div>
    {#if bench.planned}<button
        type="button"
        class="button"
        aria-expanded={measuring}
        onclick={() => (measuring = !measuring)}
        >{bench.measured.length ? TRAVEL.measured(bench.measured.length) : TRAVEL.measure}</button
      >{/if}
    {#if bench.planned}
      <div class="save" role="group" aria-label={TRAVEL.save}>
        <span class="soft">{TRAVEL.save}</span>
        <button type="button" class="button" onclick={() => save('travel.csv', 'text/csv', bench.csv())}
          >{TRAVEL.csv}</button
        >
        <button type="button" class="button" onclick={() => save(`${bench.answer}.svg`, 'image/svg+xml', drawing())}
          >{TRAVEL.svg}</button
        >
        <button type="button" class="button" onclick={png}>{TRAVEL.png}</button>
      </div>
    {/if}
  </div>

  {#if !linkage}
    <section class="card none">
      <p>{TRAVEL.none}</p>
      <a class="button" data-main href="/cars/{car.slug}/plan" use:link>{TRAVEL.toPlan}</a>
    </section>
  {:else if bench.planned && bench.curve}
    <Plot
      bind:svg
      label="{bench.curve.label}{bench.curve.unit ? `, ${bench.curve.unit}` : ''}{bench.curve.plus
        ? ` · ${TRAVEL.plus(bench.curve.plus)}`
        : ''}"
      drive={bench.planned.drive}
      driveName={TRAVEL.drive[bench.over]}
      unit={bench.planned?.unit ?? ''}
      {lines}
      row={bench.row}
      onrow={(row) => (bench.row = row)}
      onstep={(by) => bench.step(by)}
    />
    <Figures {bench} />
    {#if measuring}<Measured {car} {plan} onclose={() => (measuring = false)} />{:else}<WhatIf {bench} {plan} />{/if}
    <Levers {bench} />
  {:else}
    <section class="card none">
      <p role={bench.refusal ? 'alert' : 'status'}>{bench.refusal || '…'}</p>
      {#if bench.refusal}<a class="button" href="/cars/{car.slug}/plan" use:link>{TRAVEL.toPlan}</a>{/if}
    </section>
  {/if}
</main>

<style>
  main {
    display: grid;
    grid-template-columns: minmax(0, 58fr) minmax(0, 42fr);
    grid-template-rows: auto minmax(300px, 1fr) auto;
    gap: var(--gap-3);
    padding: var(--gap-3);
    height: calc(100vh - 64px);
    min-height: 640px;
  }
  main[data-wide] {
    grid-template-columns: minmax(0, 46fr) minmax(0, 54fr);
  }
  .bar {
    grid-column: 1 / -1;
    display: flex;
    flex-wrap: wrap;
    gap: var(--gap-3);
  }
  .bar > div {
    display: flex;
    gap: 0;
    align-items: center;
  }
  .bar .button {
    border-radius: 0;
    margin-left: -1px;
    font-weight: 400;
  }
  .bar .button[aria-pressed='true'] {
    background: var(--layout);
    color: #fff;
    font-weight: 700;
  }
  .save {
    margin-left: auto;
    gap: var(--gap-2) !important;
  }
  .none {
    grid-column: 1 / -1;
    align-self: start;
    display: grid;
    gap: var(--gap-3);
    justify-items: start;
  }
  @media (max-width: 1000px) {
    main,
    main[data-wide] {
      grid-template-columns: minmax(0, 1fr);
      grid-template-rows: auto 360px;
      height: auto;
    }
  }
</style>
