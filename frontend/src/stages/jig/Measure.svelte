<script lang="ts">
  // What to measure: a list worked out for the tools and the wanted doubt, or points picked on the drawing; and how it is read.
  import type { JigView } from '$lib/api/client';
  import type { Kind, Survey } from './survey.svelte';
  import { JIG } from './texts';

  type Props = { survey: Survey; view: JigView; inches: boolean };
  let { survey, view, inches }: Props = $props();

  let wanted = $state('');
  const names = $derived(view.points.map((p) => p.name));
  function propose(event: SubmitEvent): void {
    event.preventDefault();
    void survey.propose(wanted.trim() || (inches ? '1/16' : '1'));
  }
</script>

<section class="card" aria-label={JIG.tabs.measure}>
  <form class="row" onsubmit={propose}>
    <label
      >{JIG.sure}<input
        class="fig"
        bind:value={wanted}
        maxlength="40"
        autocomplete="off"
        placeholder={inches ? '1/16' : '1'}
      /></label
    >
    <button class="button" data-main>{JIG.propose}</button>
    <p class="soft" role="status">{survey.listSays || JIG.free}</p>
  </form>
  <div class="row facts">
    <label
      >{JIG.kind}<select
        value={survey.kind}
        onchange={(e) =>
          survey.ask(e.currentTarget.value as Kind, survey.points.slice(0, JIG.counts[e.currentTarget.value as Kind]))}
        >{#each Object.entries(JIG.kinds) as [kind, words] (kind)}<option value={kind}>{words}</option>{/each}</select
      ></label
    >
    <label
      >{JIG.tool}<select value={survey.toolNow?.id} onchange={(e) => (survey.tool = e.currentTarget.value)}
        >{#each survey.tools as tool (tool.id)}<option value={tool.id}>{tool.name}</option>{/each}</select
      ></label
    >
    {#if survey.kind === 'distance'}
      <label
        >{JIG.pinHow}<select bind:value={survey.pins}
          >{#each Object.entries(JIG.pins) as [pin, words] (pin)}<option value={pin}>{words}</option>{/each}</select
        ></label
      >
      {#if survey.pins}{#each [0, 1] as const as i (i)}<label
            >{JIG.diameters[i]}<input class="fig" bind:value={survey.diameters[i]} maxlength="20" /></label
          >{/each}{/if}
      <label>{JIG.burnt}<input class="fig" bind:value={survey.burnt} maxlength="20" placeholder="0" /></label>
    {:else if survey.kind === 'compare'}
      <label
        >{JIG.how}<select bind:value={survey.says}
          >{#each Object.entries(JIG.says) as [says, words] (says)}<option value={says}>{words}</option>{/each}</select
        ></label
      >
    {/if}
  </div>
  <div class="row facts">
    {#each { length: survey.needed }, i}
      <label
        >{JIG.point(i)}<select
          value={survey.points[i] ?? ''}
          onchange={(e) => {
            const next = [...survey.points];
            next[i] = e.currentTarget.value;
            survey.ask(survey.kind, next.slice(0, survey.needed));
          }}
          ><option value=""></option>{#each names as name (name)}<option value={name}
              >{name.replaceAll('.', ' ')}</option
            >{/each}</select
        ></label
      >
    {/each}
  </div>
  {#if survey.list.length}
    <p class="soft">{JIG.walk}</p>
    <ol>
      {#each survey.list as line, i (i)}
        {@const now =
          i === survey.list.findIndex((l) => l.reading === survey.kind && l.points.join() === survey.points.join())}
        <li>
          <button
            type="button"
            data-now={now || undefined}
            onclick={() => survey.ask(line.reading as Kind, line.points)}
            ><span>{line.say}</span><small>{line.left ? `${line.left} ${JIG.after}` : ''}</small></button
          >
        </li>
      {/each}
    </ol>
  {/if}
</section>

<style>
  section {
    display: grid;
    gap: 8px;
    align-content: start;
    min-height: 0;
    overflow: auto;
  }
  .row {
    display: grid;
    grid-template-columns: 110px auto 1fr;
    gap: 10px;
    align-items: end;
  }
  .facts {
    grid-template-columns: repeat(auto-fit, minmax(118px, 1fr));
  }
  label {
    display: grid;
    color: var(--ink-soft);
    font-size: 0.8125rem;
    min-width: 0;
  }
  input,
  select {
    min-height: var(--touch);
    width: 100%;
    border: 1px solid var(--steel-dark);
    border-radius: var(--round);
    background: #fff;
    padding: 2px 8px;
    font-size: 1rem;
    color: var(--ink);
    min-width: 0;
  }
  ol {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li button {
    width: 100%;
    border: 0;
    border-top: 1px solid var(--edge);
    background: none;
    min-height: 36px;
    text-align: left;
    cursor: pointer;
    display: flex;
    justify-content: space-between;
    gap: 10px;
    align-items: center;
  }
  li small {
    color: var(--ink-soft);
    font-size: 0.8125rem;
  }
  [data-now] {
    background: linear-gradient(90deg, #f9ecc4, transparent) !important;
    box-shadow: -6px 0 var(--paint);
    font-weight: 700;
  }
  @media (pointer: coarse) {
    li button {
      min-height: var(--touch);
    }
  }
</style>
