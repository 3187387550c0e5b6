<!-- Every job of the board: when it is ready, and what that leaves of its promise. -->
<script lang="ts">
  import type { Board } from '../../api/client';
  import { promiseOf } from '../../charts/board';
  import { p } from '../../app/router';
  import Pill from '../../ui/Pill.svelte';
  import { promiseSaid } from '../../units/due';
  import { duration } from '../../units/units';
  import JobLetter from './JobLetter.svelte';
  import type { Schedule } from './schedule.svelte';

  let { schedule, board }: { schedule: Schedule; board: Board } = $props();
  type Job = NonNullable<Board['board']['jobs']>[number];
  const jobs = $derived(
    [...(board.board.jobs ?? [])].sort((a, b) => (a.due_min ?? Infinity) - (b.due_min ?? Infinity)),
  );

  function state(job: Job): { said: string; kind: 'done' | 'late' | 'good' | '' } {
    if (schedule.isDone(job.id)) return { said: 'done', kind: 'done' };
    const promise = promiseOf(job);
    return promise ? { said: promiseSaid(promise), kind: promise.kind } : { said: 'not promised', kind: '' };
  }
</script>

<section class="panel px-4 py-3" aria-label="Promises">
  <h2>Promises</h2>
  <ul class="divide-y divide-(--line)" aria-label="Jobs of the schedule">
    {#each jobs as job (job.id)}
      {@const { said, kind } = state(job)}
      <li class="flex min-h-[34px] flex-wrap items-center gap-x-2 py-1">
        <JobLetter mark={schedule.marks.get(job.id)} />
        <a
          class="min-h-[24px] min-w-36 flex-1 font-semibold"
          title="{job.title}: hands-on {duration(job.hands_on_minutes)}{job.lots.length > 1
            ? `, ${job.lots.length} lots`
            : ''}"
          href={p('/jobs/:id', { params: { id: job.id } })}>{job.title}</a
        >
        <span class="flex items-center gap-2"
          >{#if job.ends_min !== null}<span class="num dim whitespace-nowrap">{schedule.said(job.ends_min)}</span>{/if}
          <Pill {said} {kind} /></span
        >
      </li>
    {/each}
  </ul>
  {#if board.events?.length}
    <h2 class="mt-3">Happened today</h2>
    <ul class="small" aria-label="Happened today">
      {#each board.events as one, at (at)}
        <li class="flex items-baseline gap-2">
          <span class="flex-1">{one.said}</span>
          <button class="min-h-[24px] underline" disabled={schedule.busy} onclick={() => void schedule.forget(at)}
            >Undo</button
          >
        </li>
      {/each}
    </ul>
  {/if}
</section>
