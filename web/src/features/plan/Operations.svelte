<!-- What is done before, between or after the steps: one line, which opens. -->
<script lang="ts">
  import { Collapsible } from '@skeletonlabs/skeleton-svelte';
  import type { Operation } from '../../api/client';
  import { capital, duration, inSentence } from '../../units/units';

  let { title, operations, pieces }: { title: string; operations: Operation[]; pieces: number } = $props();
  const labels = $derived(operations.map((one) => inSentence(one.label)).join(', '));

  /** Minutes of a person for each piece and once for a lot, and what waits. */
  function times(some: Operation[]): string {
    const sum = (of: (one: Operation) => number) =>
      some.filter((one) => !one.counted).reduce((all, one) => all + of(one), 0);
    const each = sum((one) => one.minutes);
    const once = sum((one) => one.lot_minutes ?? 0);
    const waits = some.reduce((all, one) => all + one.waiting_minutes, 0);
    const active =
      pieces > 1
        ? [each && `${duration(each)} each`, once && `${duration(once)} once`].filter(Boolean).join(', ')
        : duration(each + once);
    return waits ? `${active}, then waits ${duration(waits)}` : active;
  }
</script>

{#if operations.length}
  <li class="border-b border-(--line) last:border-0">
    <Collapsible>
      <Collapsible.Trigger
        class="dim grid min-h-9 w-full grid-cols-[28px_minmax(0,1fr)_auto] items-center gap-x-3 px-3.5 py-1 text-left sm:grid-cols-[28px_76px_minmax(0,1fr)_auto]"
      >
        <span class="col-start-2 sm:col-start-3">{title === 'Between' ? capital(labels) : `${title}: ${labels}`}</span>
        <span class="num text-right">{times(operations)}</span>
      </Collapsible.Trigger>
      <Collapsible.Content class="small px-3.5 pb-2 sm:pl-32">
        {#each operations as one (one.id)}
          <p class="mt-1">
            <b>{one.label}</b>{#if one.within_minutes}<span class="ml-2 text-(--stop)"
                >within {duration(one.within_minutes)}</span
              >{/if}
            <span class="dim num">{one.counted ? 'in the steps' : times([one])}</span><br />
            <span class="dim">{one.text} Minutes: {one.source_kind}, {one.source.toLowerCase()}.</span>
          </p>
          {#each one.cautions as caution (caution)}
            <p class="mb-1 rounded bg-(--stop-soft) px-2 py-0.5">{caution}</p>
          {/each}
        {/each}
      </Collapsible.Content>
    </Collapsible>
  </li>
{/if}
