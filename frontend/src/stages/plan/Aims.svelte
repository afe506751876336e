<script lang="ts">
  // Two tables of aims, one for the build and one for the running car; readings are judged by that of the stage.
  import { isLeft } from '$lib/marks';
  import Card from '$parts/form/Card.svelte';
  import Pressed from '$parts/form/Pressed.svelte';
  import Row from '$parts/form/Row.svelte';
  import AimStart from './AimStart.svelte';
  import AimSources from './AimSources.svelte';
  import CornerAims from './CornerAims.svelte';
  import { theSheet } from './sheet.svelte';
  import { PLAN } from './texts';
  import WholeAims from './WholeAims.svelte';

  const sheet = theSheet();
  const sides = () =>
    sheet.copyAims(
      (c) => isLeft(c as 'LF'),
      (c) => c.replace('L', 'R'),
    );
  const axles = () =>
    sheet.copyAims(
      (c) => c.endsWith('F'),
      (c) => c.replace('F', 'R'),
    );
</script>

<Card title={PLAN.aims} soft={PLAN.aimsSoft} label="">
  <Row cols={2} top>
    <Pressed label={PLAN.stage} options={PLAN.stages} value={sheet.shown} onpick={(s) => (sheet.shown = s)} />
    <AimStart />
  </Row>
  <CornerAims />
  <AimSources />
  <p>
    <button type="button" class="button" onclick={sides}>{PLAN.copy}</button>
    <button type="button" class="button" onclick={axles}>{PLAN.copyRear}</button>
  </p>
  <WholeAims />
</Card>
