<script lang="ts">
  // How a reading is taken: tool, place and eye in a few strokes, and what is done wrong most often.
  import type { Scene } from '$lib/kinds';

  type Props = { scene: Scene; mistake: string };
  let { scene, mistake }: Props = $props();
  // Strokes of the thing that is read (thin), of the tool (bold), and where the eye is.
  const DRAWN: Readonly<Record<Scene, { thing: string; tool: string; eye: [number, number, number] }>> = {
    string: { thing: 'M18 6V78M92 10q14 32 0 64', tool: 'M18 42H98M18 37V47M98 37V47', eye: [18, 14, 90] },
    out: { thing: 'M18 6V78M22 6V78M92 10q14 32 0 64', tool: 'M22 42H98M22 34H32V42M98 37V47', eye: [98, 16, 90] },
    gauge: { thing: 'M34 6q-12 36 0 72M52 6V78', tool: 'M52 20H66V66H52M59 30V56', eye: [104, 42, 180] },
    plate: {
      thing: 'M20 66a44 16 0 1 0 88 0a44 16 0 1 0 -88 0M56 20h16v40h-16z',
      tool: 'M64 66L100 58M94 55L101 58L97 64',
      eye: [100, 20, 90],
    },
    upright: {
      thing: 'M6 76H126M52 22H110',
      tool: 'M64 76V22M58 76H70M58 30H64M58 40H64M58 50H64M58 60H64',
      eye: [22, 22, 0],
    },
    plumb: { thing: 'M24 6V62M24 62l-5 6 5 10 5-10zM92 10q14 32 0 64', tool: 'M24 26H97M24 21V31', eye: [60, 8, 90] },
    bar: {
      thing: 'M40 66a6 6 0 1 0 12 0a6 6 0 1 0 -12 0M58 18a6 6 0 1 0 12 0a6 6 0 1 0 -12 0',
      tool: 'M38 74L70 8M56 40l20 10-6 13-20-10',
      eye: [112, 50, 180],
    },
    level: {
      thing: 'M8 72H44V66H8M88 60H124V54H88',
      tool: 'M26 66V30q0 40 40 40t40-40V54M22 40H30M102 40H110',
      eye: [66, 16, 90],
    },
    stepped: {
      thing: 'M8 72H44V66H8M88 60H124V54H88',
      tool: 'M18 46H116V54H18zM26 54V66M54 46v-6h26v6',
      eye: [67, 18, 90],
    },
    across: { thing: 'M16 20V64M116 20V64', tool: 'M16 42H116M16 36V48M116 36V48', eye: [116, 12, 90] },
    scale: { thing: 'M46 60a26 26 0 1 1 40 0', tool: 'M30 66H102V76H30zM78 71H96', eye: [20, 30, 45] },
  };
  const drawn = $derived(DRAWN[scene]);
</script>

<p class="howto">
  <svg viewBox="0 0 132 84" width="106" height="67" aria-hidden="true">
    <path class="thing" d={drawn.thing} />
    <path class="tool" d={drawn.tool} />
    <g transform="translate({drawn.eye[0]} {drawn.eye[1]}) rotate({drawn.eye[2]})">
      <path class="eye" d="M-7 -6Q2 -6 7 0Q2 6 -7 6M0 -2.5a2.5 2.5 0 1 0 0.1 0" />
    </g>
  </svg>
  <span>{mistake}</span>
</p>

<style>
  .howto {
    display: flex;
    gap: 12px;
    align-items: center;
    margin: 0;
    font-size: var(--type-small);
    max-width: 46rem;
  }
  svg {
    flex: none;
  }
  path {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  .tool {
    stroke-width: 3;
    stroke-linejoin: round;
  }
  .eye {
    stroke: var(--layout);
    stroke-width: 2;
  }
  @media (max-width: 700px) {
    :global([data-touch]) .howto svg {
      display: none;
    }
  }
  /* On a low page it comes at a touch. */
  @media (max-height: 780px) {
    :global([data-docked]) .howto {
      display: none;
    }
  }
</style>
