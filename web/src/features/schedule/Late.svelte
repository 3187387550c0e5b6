<!-- What is late, why, and what would cure it; or that every promise is met. -->
<script lang="ts">
  import { api, type Board, type DayLate } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import { duration } from '../../units/units';
  import JobLetter from './JobLetter.svelte';
  import type { Schedule } from './schedule.svelte';

  let { schedule, board }: { schedule: Schedule; board: Board } = $props();
  const jobs = $derived(board.board.jobs ?? []);
  const late = $derived(jobs.filter((one) => one.late_min > 0).sort((a, b) => b.late_min - a.late_min));
  const open = $derived(
    jobs.filter((one) => one.due_min !== null && one.ends_min !== null && !schedule.isDone(one.id)),
  );
  const least = $derived([...open].sort((a, b) => spare(a) - spare(b))[0]);
  const spare = (job: (typeof jobs)[number]) => (job.due_min ?? 0) - (job.ends_min ?? 0);
  /** The one that is explained: the latest, or another that was asked for. */
  let asked = $state<string | null>(null);
  const shown = $derived(late.find((one) => one.id === asked) ?? late[0]);
  const answer = new Answer<DayLate>();
  const key = $derived(shown ? `${shown.id} ${shown.late_min}` : '');
  $effect(() => {
    if (key && shown) answer.ask(api.whyLate(Number(shown.id)), true);
  });
  const why = $derived(answer.value && shown && answer.value.job === Number(shown.id) ? answer.value : null);
</script>

<section class="panel px-4 py-3" class:late={late.length} aria-label="Promises in danger">
  {#if shown}
    <h2 class="flex flex-wrap items-baseline gap-x-2 text-(--stop)">
      {late.length} of {jobs.length} jobs late
    </h2>
    <ul class="mt-1 flex flex-wrap gap-1.5">
      {#each late as job (job.id)}
        <li>
          <button
            class="flex min-h-[28px] items-center gap-1.5 rounded border px-1.5"
            class:border-(--ink)={job.id === shown.id}
            class:border-transparent={job.id !== shown.id}
            aria-expanded={job.id === shown.id}
            onclick={() => (asked = job.id)}
            ><JobLetter mark={schedule.marks.get(job.id)} />
            <b class="font-semibold">{job.title}</b>
            <span class="num text-(--stop)">{duration(job.late_min)}</span></button
          >
        </li>
      {/each}
    </ul>
    <div class="small mt-1" role="status">
      {#if answer.trouble}<p class="text-(--stop)">{answer.trouble}</p>
      {:else if why}
        <p>{why.reason}</p>
        <ul class="mt-1.5 grid gap-1.5">
          {#each why.cures as cure (cure.said)}
            <li class="flex items-center gap-2">
              <span class="flex-1">{cure.said}</span>
              {#if cure.event}
                <button
                  class="plain-button"
                  disabled={schedule.busy}
                  onclick={() => cure.event && void schedule.happen(cure.event)}>Do this</button
                >
              {/if}
            </li>
          {/each}
        </ul>
      {:else}<p class="dim">Trying what would help …</p>{/if}
    </div>
  {:else}
    <h2 class="text-(--go)">{open.length ? 'Every promise is met.' : 'Nothing is promised.'}</h2>
    {#if least}
      <p class="small dim mt-0.5">
        Least to spare: {least.title}, {duration(spare(least))}.
        {#if board.board.first_come && board.board.first_come.late_min > 0}
          Taken in order of arrival, {duration(board.board.first_come.late_min)} would be late.
        {/if}
      </p>
    {/if}
  {/if}
</section>

<style>
  .late {
    border-left: 4px solid var(--stop);
  }
</style>
