<script lang="ts">
  // Every mark with an aim: as it truly is, as it was read last, and what was wanted.
  import type { Truth } from '$lib/api/client';
  import Witness from '$parts/Witness.svelte';
  import { PRACTICE } from './texts';

  type Props = { marks: Truth['marks'] };
  let { marks }: Props = $props();
</script>

<ul class="plain">
  {#each marks as mark (mark.mark)}
    <li data-out={!mark.holds || undefined}>
      <Witness state={mark.holds ? 'holds' : 'out'} size={26} />
      <span
        >{mark.name}
        <b class="fig">{mark.true}</b>
        <small
          >{mark.read ? PRACTICE.read(mark.read) : PRACTICE.unread} · {PRACTICE.aim}
          {mark.aim} · {mark.holds ? PRACTICE.holds : PRACTICE.out}</small
        ></span
      >
    </li>
  {/each}
</ul>

<style>
  ul {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(280px, 1fr));
    gap: 4px 18px;
  }
  li {
    display: flex;
    gap: 8px;
    align-items: center;
    border-top: 1px solid var(--edge);
    padding: 5px 0;
  }
  b {
    font-weight: 400;
    font-size: 1.1875rem;
    margin-left: 6px;
  }
  small {
    display: block;
    color: var(--ink-soft);
  }
  [data-out] small {
    color: var(--rust);
  }
</style>
