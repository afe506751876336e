<script lang="ts">
  // The list of what to measure, in walking order, with what is left in doubt after each.
  import type { Kind, Survey } from './survey.svelte';
  import { JIG } from './texts';

  type Props = { survey: Survey };
  let { survey }: Props = $props();
</script>

<p class="soft">{JIG.walk}</p>
<ol class="plain">
  {#each survey.list as line, i (i)}
    <li>
      <button
        type="button"
        data-lit={i === survey.at || undefined}
        onclick={() => survey.ask(line.reading as Kind, line.points)}
        ><span>{line.say}</span><small>{line.left ? `${line.left} ${JIG.after}` : ''}</small></button
      >
    </li>
  {/each}
</ol>

<style>
  button {
    width: 100%;
    border: 0;
    border-top: 1px solid var(--edge);
    background-color: transparent;
    min-height: 36px;
    text-align: left;
    cursor: pointer;
    display: flex;
    justify-content: space-between;
    gap: 10px;
    align-items: center;
  }
  small {
    color: var(--ink-soft);
    font-size: var(--type-label);
  }
  [data-lit] {
    font-weight: 700;
  }
  @media (pointer: coarse) {
    button {
      min-height: var(--touch);
    }
  }
</style>
