<!-- The jobs of the schedule with their promises; why one is late and what would help; and what happened today. -->
<script lang="ts">
  import { api, type Board, type DayLate } from '../../api/client';
  import { timeAt } from '../../charts/board';
  import { p } from '../../app/router';
  import { Answer } from '../../ui/answer.svelte';
  import { duration } from '../../units/units';
  import type { Today } from './today.svelte';

  let { today, board }: { today: Today; board: Board } = $props();
  const jobs = $derived([...(board.board.jobs ?? [])].sort((a, b) => b.late_min - a.late_min));
  const late = new Answer<DayLate>();
  let asked = $state<string | null>(null);

  function why(job: string) {
    asked = asked === job ? null : job;
    if (asked) late.ask(api.whyLate(Number(job)), true);
  }
</script>

<h2 class="mt-3">Promises</h2>
<ul aria-label="Jobs of the schedule">
  {#each jobs as job (job.id)}
    <li class="border-t border-(--line) py-1">
      <div class="small grid grid-cols-[minmax(0,1fr)_auto_auto] items-baseline gap-x-3">
        <a
          class="min-h-[24px] truncate leading-[24px] underline"
          title={job.title}
          href={p('/jobs/:id', { params: { id: job.id } })}>{job.title}</a
        >
        <span class="num dim"
          >hands-on {duration(job.hands_on_minutes)}{job.lots.length > 1 ? `, ${job.lots.length} lots` : ''}</span
        >
        {#if job.late_min}
          <button
            class="num min-h-[24px] font-semibold text-(--stop) underline"
            onclick={() => why(job.id)}
            aria-expanded={asked === job.id}>{duration(job.late_min)} late. Why?</button
          >
        {:else}
          <span class="num"
            >{job.due_min === null ? 'not promised' : `by ${timeAt(job.due_min, board.board.begins)}`}</span
          >
        {/if}
      </div>
      {#if asked === job.id}
        <div class="small mt-1 rounded bg-(--raised) p-2" role="status">
          {#if late.trouble}<p class="text-(--stop)">{late.trouble}</p>
          {:else if late.value && late.value.job === Number(job.id)}
            <p>{late.value.reason}</p>
            <ul class="mt-1 grid gap-1">
              {#each late.value.cures as cure (cure.said)}
                <li class="flex flex-wrap items-baseline gap-2">
                  <span class="flex-1">{cure.said}</span>
                  {#if cure.event}
                    <button
                      class="plain-button"
                      disabled={today.busy}
                      onclick={() => cure.event && void today.happen(cure.event)}>Do it</button
                    >
                  {/if}
                </li>
              {/each}
            </ul>
          {:else}<p class="dim">Trying what would help …</p>{/if}
        </div>
      {/if}
    </li>
  {/each}
</ul>
{#if board.events?.length}
  <h2 class="mt-3">Happened today</h2>
  <ul class="small" aria-label="Happened today">
    {#each board.events as one, at (at)}
      <li class="flex items-baseline gap-2">
        <span class="flex-1">{one.said}</span>
        <button class="min-h-[24px] underline" disabled={today.busy} onclick={() => void today.forget(at)}
          >Take back</button
        >
      </li>
    {/each}
  </ul>
{/if}
