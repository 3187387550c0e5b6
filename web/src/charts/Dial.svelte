<!-- The clock of a step, around the wheel as it turns, with where to stand and where to touch. -->
<script lang="ts">
  import { pointAt, ringArc } from './dial';
  import { layOutTurning } from './turning';

  interface Props {
    time: string;
    under: string;
    /** Share of the planned time that is over; beyond 1 it is over time. */
    share: number;
    /** Share of the longest stay on one spot; null where there is none. */
    stay: number | null;
    colour: string;
    drawing?: { turns: string; worker_deg: number; touch_deg: [number, number]; where: string } | null;
  }
  let { time, under, share, stay, colour, drawing = null }: Props = $props();
  const SIZE = 400;
  const INNER = 364;
  const drawn = $derived(drawing ? layOutTurning(drawing, INNER) : null);
  const shift = (SIZE - INNER) / 2;
  const you = $derived(drawing ? pointAt(SIZE / 2, 141, drawing.worker_deg) : null);
</script>

<svg
  viewBox="0 0 {SIZE} {SIZE}"
  class="h-full max-h-full w-full"
  role="img"
  aria-label="{time} {under}. {drawing?.where ?? ''}"
>
  <circle cx="200" cy="200" r="182" fill="none" stroke="var(--raised)" stroke-width="22" />
  <path
    d={ringArc(200, 182, share)}
    fill="none"
    stroke={share > 1 ? 'var(--stop)' : colour}
    stroke-width="22"
    stroke-linecap="round"
  />
  {#if stay !== null}
    <path d={ringArc(200, 162, stay)} fill="none" stroke="var(--ink)" stroke-width="5" stroke-linecap="round" />
  {/if}
  {#if drawn}
    <g transform="translate({shift},{shift})">
      <circle cx={drawn.x} cy={drawn.y} r={drawn.r} fill="var(--raised)" stroke={colour} stroke-width="2" />
      <path d={drawn.touch} fill="none" stroke="var(--go)" stroke-width="12" />
      <path d={drawn.arrow} fill="none" stroke="var(--t1)" stroke-width="4" />
      <path d={drawn.head} fill="var(--t1)" />
    </g>
    {#if you}<text x={you.x} y={you.y} dy="6" text-anchor="middle" class="word" fill="var(--dim)">you</text>{/if}
    <rect x="2" y="377" width="22" height="12" fill="var(--go)" />
    <text x="30" y="390" class="word" fill="var(--go)">touch here</text>
  {/if}
  <text x="200" y="206" text-anchor="middle" class="time num" fill="var(--ink)">{time}</text>
  <text x="200" y="236" text-anchor="middle" class="under" fill="var(--dim)">{under}</text>
</svg>

<style>
  .time {
    font-size: 60px;
    font-weight: 700;
  }
  .under {
    font-size: 19px;
  }
  .word {
    font-size: 17px;
    font-weight: 600;
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 5px;
  }
</style>
