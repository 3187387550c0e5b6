<!-- The work around the abrasives that belongs before, between or after the steps. -->
<script lang="ts">
  import type { Operation } from '../../api/client';
  import { duration } from '../../units/units';

  let { operations }: { operations: Operation[] } = $props();

  function time(one: Operation): string {
    if (one.counted) return 'in the steps';
    return one.waiting_minutes ? `${duration(one.minutes)} + ${duration(one.waiting_minutes)}` : duration(one.minutes);
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
