<!-- What is done before, between and after the steps: each operation with its own timer, side by side. -->
<script lang="ts">
  import Dialog from '../../ui/Dialog.svelte';
  import { clock, duration } from '../../units/units';
  import type { BenchRun } from './run.svelte';

  let { bench, open, onclose }: { bench: BenchRun; open: boolean; onclose: () => void } = $props();
  const WHEN = { before: 'Before', between: 'Between', after: 'After' };
</script>

<Dialog bind:open={() => open, (now) => now || onclose()} title="Before and after" wide>
  <ul class="grid gap-2.5">
    {#each bench.run.waiting as one (one.operation.id)}
      <li class="flex items-start gap-3 rounded-lg border border-(--line) bg-(--raised) p-3">
        <div class="flex-1">
          <b class="text-lg">{WHEN[one.operation.when]}: {one.operation.label}{one.done ? ' – done' : ''}</b>
          <span class="dim num">
            {duration(one.minutes)}{one.operation.waiting_minutes
              ? `, then ${duration(one.operation.waiting_minutes)} of waiting`
              : ''}{one.operation.within_minutes ? `, within ${duration(one.operation.within_minutes)}` : ''}</span
          >
          <p>{one.operation.text}</p>
          {#if one.operation.check}<p><b>Check:</b> {one.operation.check}</p>{/if}
          {#each one.operation.cautions as caution (caution)}<p class="text-(--stop)">{caution}</p>{/each}
        </div>
        <div class="grid w-40 gap-1.5">
          {#if one.since_s !== null}
            <b class="num mono text-2xl">{clock(one.operation.waiting_minutes * 60 - one.since_s - bench.since)}</b>
          {:else if one.operation.waiting_minutes}
            <button
              class="plain-button min-h-12"
              onclick={() => bench.tap({ kind: 'waiting', operation: one.operation.id })}
              >{one.done ? 'Wait again' : 'Start waiting'}</button
            >
          {/if}
          {#if !one.done || one.since_s !== null}
            <button
              class="main-button min-h-12"
              onclick={() => bench.tap({ kind: 'operated', operation: one.operation.id })}
              >{one.operation.check ? 'Passed' : 'Done'}</button
            >
            {#if one.operation.check}
              <button
                class="plain-button min-h-12"
                onclick={() =>
                  bench.tap({
                    kind: 'trouble',
                    words: `${one.operation.label}: failed its check (${one.operation.check})`,
                  })}>Failed</button
              >
            {/if}
          {/if}
        </div>
      </li>
    {/each}
  </ul>
</Dialog>
