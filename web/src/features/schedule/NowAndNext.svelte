<!-- What each person does now, and what comes after it. -->
<script lang="ts">
  import type { Board } from '../../api/client';
  import { clockAt, nowAndNext, timeAt } from '../../charts/board';
  import JobLetter from './JobLetter.svelte';
  import type { Schedule } from './schedule.svelte';

  let { schedule, board, people }: { schedule: Schedule; board: Board; people: string[] } = $props();
  const begins = $derived(board.board.begins);
  const rows = $derived(
    people.map((person) => ({ person, both: nowAndNext(board.board.blocks, person, board.done, board.now_min) })),
  );
</script>

<section class="panel px-4 py-3" aria-label="Now and next">
  <h2 class="mb-1">Now and next</h2>
  <ul class="divide-y divide-(--line)">
    {#each rows as { person, both: [now, next] } (person)}
      <li class="grid grid-cols-[3.6rem_minmax(0,1fr)_auto] items-baseline gap-x-2 py-1.5">
        <b class="truncate" title={person}>{person}</b>
        {#if now}
          <button class="text-left" onclick={() => schedule.choose(now.key)}>
            <JobLetter mark={schedule.markOf(now)} /> <b class="font-semibold">{now.label}</b>
            <span class="sr-only">, {now.job}</span></button
          >
          <span class="num dim text-right"
            >{now.from_min <= board.now_min
              ? `until ${clockAt(now.to_min, begins)}`
              : `from ${timeAt(now.from_min, begins)}`}</span
          >
          {#if next}
            <button class="dim col-start-2 text-left" onclick={() => schedule.choose(next.key)}
              >then <JobLetter mark={schedule.markOf(next)} />
              {next.label}<span class="sr-only">, {next.job}</span></button
            >
            <span class="num dim text-right">to {timeAt(next.to_min, begins)}</span>
          {/if}
        {:else}<span class="dim col-span-2">nothing more</span>{/if}
      </li>
    {/each}
  </ul>
</section>
