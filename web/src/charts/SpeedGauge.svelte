<!-- Where the setting lies: the recommended band, the setting, and the wheel's mark that is never passed. -->
<script lang="ts">
  import { shown } from '../units/shown.svelte';
  import { layOutGauge } from './gauge';

  interface Props {
    speed: number;
    band: [number, number];
    limit: number | null;
  }
  let { speed, band, limit }: Props = $props();
  const gauge = $derived(layOutGauge(speed, band, limit, 256));
  const words = $derived(
    `${shown.say(speed, 'speed', 3)}; recommended ${shown.bare(band[0], 'speed')} to ${shown.say(band[1], 'speed')}` +
      (limit === null ? '' : `; never above ${shown.say(limit, 'speed')}`),
  );
</script>

<svg class="w-full shrink-0" viewBox="0 0 256 40" role="img" aria-label={words}>
  <rect x="0" y="12" width={gauge.width} height="8" rx="4" class="rail" />
  <rect x={gauge.bandX} y="12" width={gauge.bandWidth} height="8" class="band" />
  <text x={gauge.bandX} y="36" class="tick">{shown.bare(band[0], 'speed')}</text>
  <text x={gauge.bandX + gauge.bandWidth} y="36" text-anchor="middle" class="tick">{shown.bare(band[1], 'speed')}</text>
  {#if gauge.markX !== null}<path d="M{gauge.markX},10v15" class="mark" />{/if}
  {#if gauge.limitX !== null}
    <path d="M{gauge.limitX},9v14" class="limit" />
    <text x={Math.min(gauge.limitX, 254)} y="8" text-anchor="end" class="limit-text"
      >max {shown.bare(limit ?? 0, 'speed')}</text
    >
  {/if}
</svg>

<style>
  .rail {
    fill: var(--line);
  }
  .band {
    fill: var(--go);
  }
  .mark {
    stroke: var(--ink);
    stroke-width: 3;
  }
  .limit {
    stroke: var(--stop);
    stroke-width: 3;
  }
  .tick,
  .limit-text {
    font-size: 11.5px;
    fill: var(--dim);
    font-variant-numeric: tabular-nums;
  }
  .limit-text {
    fill: var(--stop);
  }
</style>
