<!-- Readings along the length with their bars, between the two limits. -->
<script lang="ts">
  import { layOutLength, type LengthReading } from './section';

  interface Props {
    readings: LengthReading[];
    limits: { low: number; high: number };
    length: number;
    within: number;
    words: string;
  }
  let { readings, limits, length, within, words }: Props = $props();
  let width = $state(320);
  const HEIGHT = 120;
  const drawn = $derived(layOutLength(readings, limits, length, within, width, HEIGHT));
</script>

<div bind:clientWidth={width} class="min-w-0">
  <svg {width} height={HEIGHT} role="img" aria-label={words}>
    <rect
      x={drawn.left}
      width={Math.max(0, drawn.right - drawn.left)}
      y={drawn.high}
      height={drawn.low - drawn.high}
      fill="var(--go)"
      fill-opacity="0.14"
    />
    {#each [drawn.low, drawn.high] as y (y)}<line
        x1={drawn.left}
        x2={drawn.right}
        y1={y}
        y2={y}
        stroke="var(--dim)"
        stroke-dasharray="5 4"
      />{/each}
    {#each drawn.points as point, at (at)}
      <g opacity={point.old ? 0.35 : 1}>
        <line x1={point.x} x2={point.x} y1={point.y - point.within} y2={point.y + point.within} stroke="var(--ink)" />
        <circle cx={point.x} cy={point.y} r="3.4" fill="var(--ink)" />
      </g>
    {/each}
  </svg>
</div>
