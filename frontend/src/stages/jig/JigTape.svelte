<script lang="ts">
  // The tape at the jig: from pin to pin, over points, by level or straight edge.
  import { DESK } from '$parts/texts';
  import Tape from '$parts/tape/Tape.svelte';
  import type { Survey } from './survey.svelte';
  import { JIG } from './texts';

  type Props = { survey: Survey };
  let { survey }: Props = $props();
  const HINTS: Partial<Record<string, string>> = { compare: JIG.bound, in_line: JIG.play };
  const hooks = $derived([
    { key: '↑ ↓', does: JIG.next },
    { key: 'U', does: JIG.other, act: () => survey.nextTool() },
    ...(survey.zero === null ? [] : [{ key: 'G', does: DESK.zeroOther[survey.zero], act: () => survey.rezero() }]),
    ...(survey.car.recent.length ? [{ key: '⌫', does: JIG.strike, act: () => survey.strike() }] : []),
  ]);
</script>

<Tape
  desk={survey}
  title={survey.title}
  how={survey.points.length
    ? JIG.reads(
        survey.toolNow?.name ?? '',
        `${JIG.whats[survey.kind]}${survey.zero ? ` ${JIG.zeroOn[survey.zero]}` : ''}`,
      )
    : JIG.free}
  label={JIG.record}
  placeholder={HINTS[survey.kind] ?? ''}
  note={survey.ready ? '' : JIG.pick}
  {hooks}
  asks={survey.points.length > 0}
/>
