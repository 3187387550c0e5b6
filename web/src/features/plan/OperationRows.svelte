<!-- What is done before, between or after the steps. -->
<script lang="ts">
  import type { Operation } from '../../api/client';
  import { duration } from '../../units/units';

  let { operations, pieces }: { operations: Operation[]; pieces: number } = $props();

  function time(one: Operation): string {
    if (one.counted) return 'in the steps';
    const once = one.lot_minutes ?? 0;
    const each = [one.minutes && `${duration(one.minutes)} each`, once && `${duration(once)} once`].filter(Boolean);
    const active = pieces > 1 ? each.join(', ') : duration(one.minutes + once);
    return one.waiting_minutes ? `${active}, waits ${duration(one.waiting_minutes)}` : active;
  }
</script>

{#each operations as one (one.id)}
  <li class="border-b border-(--line) last:border-0">
    <details>
      <summary class="grid cursor-pointer grid-cols-[1.4rem_minmax(0,1fr)_auto] items-baseline gap-x-3 px-3 py-1">
        <span class="dim" aria-hidden="true">·</span>
        <span class="small min-w-0"
          >{one.label}{#if one.within_minutes}<span class="ml-2 text-(--stop)"
              >within {duration(one.within_minutes)}</span
            >{/if}</span
        >
        <span class="num small dim text-right">{time(one)}</span>
      </summary>
      <p class="small dim px-3 pb-1.5 pl-11">{one.text} Minutes: {one.source_kind}, {one.source.toLowerCase()}.</p>
      {#each one.cautions as caution (caution)}
        <p class="small mb-1 ml-11 rounded bg-(--stop-soft) px-2 py-0.5">{caution}</p>
      {/each}
    </details>
  </li>
{/each}

<style>
  summary::-webkit-details-marker {
    display: none;
  }
</style>
