<!-- One thing on its rail: a wheel as large as it is now, a sheet, a bar or a machine, coloured by its grain. -->
<script lang="ts">
  import type { RackItem } from '../../api/client';
  import MachineDrawing from '../../ui/MachineDrawing.svelte';
  import { temperColour } from '../../charts/temper';
  import { shown } from '../../units/shown.svelte';
  import { figures } from '../../units/units';
  import { keptFor } from './rack.svelte';

  let { item, chosen, onchoose }: { item: RackItem; chosen: boolean; onchoose: () => void } = $props();
  const colour = $derived(item.grain_um ? temperColour(item.grain_um) : 'var(--dim)');
  // A belt carries the diameter of its drive wheel, and is none itself.
  const round = $derived(item.thing.diameter_mm !== null && !['belt', 'slack'].includes(item.thing.like));
  const size = $derived(item.size_mm ?? item.thing.diameter_mm ?? 0);
  const drawn = (mm: number) => Math.max(6, Math.min(24, (24 * Math.sqrt(mm)) / Math.sqrt(250)));
  const radius = $derived(round ? drawn(size) : 0);
  /** As it was when it was new: what lies between is worn away. */
  const fresh = $derived(item.thing.wears_down ? drawn(item.item.diameter_mm ?? item.thing.diameter_mm ?? 0) : 0);
  const kept = $derived(keptFor(item));
  const about = $derived(
    [
      item.grain_um ? shown.say(item.grain_um, 'depth') : '',
      round && item.thing.wears_down ? shown.say(size, 'length', 3) : '',
      item.thing.single ? '' : `${figures(item.have, 3)} there`,
    ]
      .filter(Boolean)
      .join(' · '),
  );
</script>

<button
  class="peg panel flex flex-col items-center gap-1 px-2 py-2 text-center"
  class:on={chosen}
  class:opacity-50={item.retired}
  aria-pressed={chosen}
  onclick={onchoose}
>
  {#if item.thing.kind === 'machine'}
    <MachineDrawing machine={item.thing.like} />
  {:else}
    <svg width="52" height="52" viewBox="-26 -26 52 52" aria-hidden="true">
      {#if round && fresh > radius + 1}
        <circle r={fresh} fill="none" stroke="var(--dim)" stroke-dasharray="3 3" />
      {/if}
      {#if round}
        <circle r={radius} fill={colour} fill-opacity="0.18" stroke={colour} stroke-width="2.5" />
        <circle r="2.5" fill="var(--dim)" />
      {:else if item.thing.kind === 'lap'}
        <rect
          x="-22"
          y="-6"
          width="44"
          height="14"
          rx="1"
          fill={colour}
          fill-opacity="0.35"
          stroke={colour}
          stroke-width="2"
        />
      {:else if item.thing.kind === 'compound'}
        <rect x="-20" y="-8" width="40" height="16" rx="3" fill={colour} fill-opacity="0.75" />
      {:else}
        <rect x="-17" y="-22" width="30" height="38" rx="1" fill={colour} fill-opacity="0.14" stroke={colour} />
        <rect x="-12" y="-17" width="30" height="38" rx="1" fill={colour} fill-opacity="0.45" stroke={colour} />
      {/if}
    </svg>
  {/if}
  <span class="leading-tight font-semibold">{item.item.name || item.thing.label}</span>
  <span class="small dim num leading-tight">
    {about}
  </span>
  {#if kept}<span class="small leading-tight" class:text-(--stop)={item.mixed}>{kept}</span>{/if}
  {#if item.low}<span class="small font-semibold text-(--stop)">low</span>{/if}
  {#if item.misfits.length}<span class="small font-semibold text-(--stop)">does not fit</span>{/if}
  {#if item.retired}<span class="small">retired</span>{/if}
</button>

<style>
  .peg.on {
    outline: 2px solid var(--ink);
  }
</style>
