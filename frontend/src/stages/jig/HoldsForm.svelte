<script lang="ts">
  // Conditions to be met before the weld, each ticked when it is.
  import type { JigView } from '$lib/api/client';
  import { takeOut } from '$lib/takeout';
  import Check from '$parts/form/Check.svelte';
  import Folded from '$parts/form/Folded.svelte';
  import Group from '$parts/form/Group.svelte';
  import Row from '$parts/form/Row.svelte';
  import Text from '$parts/form/Text.svelte';
  import type { JigForms } from './jig-forms.svelte';
  import { WELD } from './texts';

  type Props = { forms: JigForms; holds: JigView['works']['holds'] };
  let { forms, holds }: Props = $props();
  let another = $state({ words: '' });
  const say = (condition: string, met: boolean) =>
    forms.record({ kind: 'hold', version: 1, condition, met, words: '' }, condition);
  const add = () => void takeOut(another, ['words'], ({ words }) => say(words.trim(), false));
</script>

<Group title={WELD.holds} soft={WELD.holdsSoft}>
  <ul class="plain">
    {#each holds as hold, i (i)}
      <li><Check label={hold.condition} checked={hold.met} onpick={(met) => void say(hold.condition, met)} /></li>
    {/each}
  </ul>
  <Folded title={WELD.another}>
    <Row cols={1} end>
      <Text label={WELD.another} bind:value={another.words} max={120} />
      <button type="button" class="button" disabled={!another.words.trim()} onclick={add}>{WELD.say}</button>
    </Row>
  </Folded>
</Group>
