<script lang="ts">
  // One pickup point that is off: what that does by itself and together with the others, and what may be done.
  import type { JigView, Pickup } from '$lib/api/client';
  import Table from '$parts/form/Table.svelte';
  import Witness from '$parts/Witness.svelte';
  import { JIG } from './texts';

  type Props = { chosen: Pickup; together?: JigView['together'][number]['effects'] | undefined };
  let { chosen, together }: Props = $props();
  const all = (answer: string) => together?.find((t) => t.answer === answer)?.say ?? '';
</script>

<div class="one">
  <h3>
    <Witness state={chosen.verdict} size={26} />
    {chosen.say}
    {#if chosen.move}<b>· {JIG.back(chosen.move)}</b>{/if}
  </h3>
  <div class="two">
    <div>
      <h4>{JIG.does}{together ? ` · ${JIG.together.toLowerCase()}` : ''}</h4>
      <Table small>
        {#each chosen.effects as e, i (i)}
          <tr><th scope="row">{e.label}</th><td class="fig">{e.say}</td><td class="fig soft">{all(e.answer)}</td></tr>
        {/each}
      </Table>
    </div>
    <div>
      <h4>{JIG.do}</h4>
      <ol class="options">
        {#each chosen.options as o, i (i)}<li><b>{o.do}</b> {o.say}</li>{/each}
      </ol>
    </div>
  </div>
</div>

<style>
  .one {
    background: var(--quiet);
    border-left: 6px solid var(--paint);
    padding: 6px 10px;
    margin-left: -6px;
  }
  h3 {
    font-size: 1rem;
    display: flex;
    gap: 8px;
    align-items: center;
  }
  h4 {
    margin: 0;
    font-size: var(--type-label);
    font-weight: 400;
    color: var(--ink-soft);
  }
  .two {
    display: grid;
    grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr);
    gap: 26px;
  }
  ol {
    margin: 0;
    padding-left: 22px;
    font-size: var(--type-small);
  }
</style>
