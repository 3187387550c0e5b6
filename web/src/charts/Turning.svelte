<!-- Which way the wheel turns, where the worker stands ("you"), and where the work may touch. -->
<script lang="ts">
  import { layOutTurning } from './turning';

  interface Props {
    drawing: { turns: string; worker_deg: number; touch_deg: [number, number]; where: string; view: string };
    colour: string;
    size?: number;
  }
  let { drawing, colour, size = 104 }: Props = $props();
  const drawn = $derived(layOutTurning(drawing, size));
</script>

<svg width={size} height={size} viewBox="0 0 {size} {size}" class="shrink-0" role="img" aria-label={drawing.where}>
  <circle cx={drawn.x} cy={drawn.y} r={drawn.r} fill={colour} fill-opacity="0.16" stroke={colour} stroke-width="2" />
  <circle cx={drawn.x} cy={drawn.y} r={size * 0.03} fill="var(--dim)" />
  <path d={drawn.touch} fill="none" stroke="var(--go)" stroke-width={size * 0.075} stroke-linecap="butt" />
  <path d={drawn.arrow} fill="none" stroke="var(--ink)" stroke-width="1.6" />
  <path d={drawn.head} fill="var(--ink)" />
  <text
    x={drawn.worker.x}
    y={drawn.worker.y}
    text-anchor="middle"
    dominant-baseline="central"
    font-size={size * 0.115}
    fill="var(--ink)">you</text
  >
</svg>
