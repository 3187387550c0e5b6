<!-- The lap that this work asks for, as a drawing with its dimensions. -->
<script lang="ts">
  import type { SizeAnswer } from '../../api/client';
  import { shown } from '../../units/shown.svelte';

  let { lap, kind }: { lap: NonNullable<SizeAnswer['lap']>; kind: string } = $props();
  const size = (mm: number) => shown.say(mm, 'length', 6);
  const [W, H] = [300, 150];
</script>

<figure>
  <svg
    viewBox="0 0 {W} {H}"
    class="w-full max-w-88"
    role="img"
    aria-label="Lap of {lap.material}, {size(lap.diameter_mm)} across, {size(lap.length_mm)} long"
  >
    <g fill="none" stroke="var(--ink)" stroke-width="1.6">
      {#if kind === 'bore'}
        <rect x="60" y="40" width="150" height="52" />
        <path d="M30 58h210M30 74h210" stroke-width="1" />
        <path d="M64 92 C 100 40, 170 92, 206 40" stroke="var(--t3)" stroke-dasharray="4 3" />
      {:else}
        <rect x="60" y="30" width="150" height="72" />
        <path d="M60 54h150M60 78h150" />
        <path d="M30 56h210M30 76h210" stroke-width="1" />
        <path d="M135 30v24M135 78v24" stroke="var(--t3)" stroke-dasharray="4 3" />
      {/if}
    </g>
    <g stroke="var(--dim)" stroke-width="1">
      <path d="M60 {kind === 'bore' ? 96 : 106}v14M210 {kind === 'bore' ? 96 : 106}v14M60 116h150" />
      {#if kind === 'bore'}<path d="M214 40h22M214 92h22M232 40v52" />{:else}<path
          d="M214 54h22M214 78h22M232 54v24"
        />{/if}
    </g>
    <g fill="var(--ink)" font-size="11">
      <text x="135" y="130" text-anchor="middle">{size(lap.length_mm)}</text>
      <text x="240" y="70">Ø {shown.bare(lap.diameter_mm, 'length', 6)}</text>
      <text x="60" y="22">{lap.material}, {lap.split} split</text>
    </g>
  </svg>
  <figcaption class="small dim">
    {lap.note}. {size(lap.slack_mm[0])} to {shown.bare(lap.slack_mm[1], 'length', 3)} of slack {kind === 'bore'
      ? 'on its mandrel'
      : 'in its holder'}, {shown.bare(lap.spindle_rpm[0], 'turns', 3)} to {shown.say(lap.spindle_rpm[1], 'turns', 3)},
    stroke
    {shown.say(lap.stroke_mm, 'length', 3)}: the work runs out over each end by {shown.say(
      lap.overhang_mm,
      'length',
      3,
    )}.
  </figcaption>
</figure>
