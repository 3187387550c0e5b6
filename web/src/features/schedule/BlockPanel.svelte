<!-- The block that was chosen: its steps, to put one elsewhere, and what would be if it went first. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import X from '@lucide/svelte/icons/x';
  import { api, type Block } from '../../api/client';
  import { choices } from '../../api/catalogue.svelte';
  import { navigate, p } from '../../app/router';
  import { shortMachine } from '../../charts/labels';
  import { clockAt } from '../../charts/board';
  import { Answer } from '../../ui/answer.svelte';
  import Choice from '../../ui/Choice.svelte';
  import { notices } from '../../ui/notices.svelte';
  import { counted, duration } from '../../units/units';
  import JobLetter from './JobLetter.svelte';
  import type { Schedule } from './schedule.svelte';

  interface Props {
    schedule: Schedule;
    block: Block;
    /** The blocks drawn as one with it. */
    piece: Block[];
    begins: string;
    people: string[];
  }
  let { schedule, block, piece, begins, people }: Props = $props();
  const first = new Answer<Awaited<ReturnType<typeof api.ifFirst>>>();
  const at = $derived(clockAt(block.from_min, begins));
  const job = $derived((schedule.board?.board.jobs ?? []).find((one) => one.id === schedule.jobOf(block)));
  const steps = $derived(piece.filter((one) => one.kind !== 'change'));
  let heading = $state<HTMLElement>();
  /** The block that was asked about: the answer is not another one's. */
  let asked = $state('');

  // Once, when it opens: going through its steps leaves the focus on them.
  onMount(() => heading?.focus({ preventScroll: true }));

  function where(one: Block): string {
    const machine = one.machine ? shortMachine(choices.machine(one.machine)?.label ?? one.machine) : '';
    return [machine && (one.spindle ? `${machine}, spindle ${one.spindle}` : machine), one.face]
      .filter(Boolean)
      .join(' · ');
  }

  /** A time of the block's own day as minutes since the board begins. */
  function minuteOf(clock: string): number | null {
    const [hours, minutes] = clock.split(':').map(Number);
    const [h, m] = begins.split(':').map(Number);
    if (hours === undefined || minutes === undefined || Number.isNaN(hours + minutes)) return null;
    const day = Math.floor((block.from_min + (h ?? 0) * 60 + (m ?? 0)) / 1440);
    return day * 1440 + hours * 60 + minutes - (h ?? 0) * 60 - (m ?? 0);
  }

  function move(clock: string) {
    const minute = minuteOf(clock);
    if (minute !== null)
      void schedule.pin(block.key, minute - (block.from_min - block.starts_min), block.person, block.spindle);
  }

  async function start() {
    try {
      const run = await api.begin(Number(schedule.jobOf(block)));
      await navigate('/bench/:id', { params: { id: String(run.id) } });
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }

  function ask() {
    asked = block.key;
    first.ask(api.ifFirst(block.key));
  }
</script>

<section class="panel grid gap-2.5 border-2! border-(--ink)! px-4 py-3" aria-label="Block">
  <div class="flex items-center gap-2">
    <JobLetter mark={schedule.markOf(block)} />
    <h2 class="flex-1 text-[1.1rem]!" tabindex="-1" bind:this={heading}>{block.job}</h2>
    <button class="plain-button touch px-3!" aria-label="Close" onclick={() => (schedule.selected = null)}
      ><X size={16} aria-hidden="true" /></button
    >
  </div>
  <p class="num">
    <b>{block.person ?? 'Waits by itself'}, {at} to {clockAt(block.to_min, begins)}</b>
    {#if job?.ends_min !== null && job?.ends_min !== undefined}· ready {schedule.said(
        job.ends_min,
      )}{/if}{#if job?.due_min !== null && job?.due_min !== undefined}, due {schedule.said(
        job.due_min,
      )}{/if}{#if block.late_min}, <b class="text-(--stop)">late by {duration(block.late_min)}</b>{/if}
  </p>
  <ul class="divide-y divide-(--line)" aria-label="Steps of this block">
    {#each steps as one (`${one.key} ${one.kind}`)}
      <li>
        <button
          class="flex min-h-11 w-full items-center gap-2 px-1.5 text-left"
          class:bg-(--raised)={one.key === block.key}
          aria-pressed={one.key === block.key}
          onclick={() => schedule.choose(one.key)}
        >
          <span class="min-w-0 flex-1"
            ><span class:font-semibold={one.key === block.key}
              >{schedule.jobOf(one) === schedule.jobOf(block) ? '' : `${one.job}: `}{one.label}</span
            ><span class="small dim block">{where(one)}</span></span
          >
          <span class="num dim">{duration(one.to_min - one.from_min)}</span>
        </button>
      </li>
    {/each}
  </ul>
  {#if block.kind === 'work'}
    <div class="grid grid-cols-2 gap-3">
      <label>
        <span class="small dim block">Begins at</span>
        <input class="field num" type="time" value={at} onchange={(event) => move(event.currentTarget.value)} />
      </label>
      <Choice
        label="Done by"
        value={block.person ?? ''}
        options={people.map((name) => ({ id: name, label: name }))}
        onchange={(name) => void schedule.pin(block.key, block.starts_min, name, block.spindle)}
      />
    </div>
  {/if}
  <div class="flex flex-wrap gap-2">
    <button class="main-button" onclick={() => void start()}>Go to the bench</button>
    {#if block.fixed}
      <button class="plain-button" onclick={() => void schedule.unpin(block.key)}>Let it move</button>
    {:else if block.kind === 'work'}
      <button
        class="plain-button"
        onclick={() => void schedule.pin(block.key, block.starts_min, block.person, block.spindle)}>Keep here</button
      >
    {/if}
    <button class="plain-button" onclick={() => void schedule.finish(block.key)}>Mark as done</button>
    <a class="plain-button" href={p('/jobs/:id', { params: { id: schedule.jobOf(block) } })}>Open the plan</a>
  </div>
  <button class="min-h-[24px] justify-self-start font-semibold underline" onclick={ask}>What if it went first?</button>
  {#if asked === block.key && first.value}
    {@const { now, first: then } = first.value}
    <p role="status">
      {#if !now || !then}It cannot go first: what is kept in its place is in the way.
      {:else}
        {then.late_min === now.late_min
          ? 'No more would be late'
          : `${duration(Math.abs(then.late_min - now.late_min))} ${then.late_min > now.late_min ? 'more' : 'less'} would be late`},
        {then.changes === now.changes
          ? 'as many changes'
          : `${counted(Math.abs(then.changes - now.changes), then.changes > now.changes ? 'more change' : 'fewer change')}`},
        and all work would be done by {schedule.said(then.ends_min)} instead of {schedule.said(now.ends_min)}.
      {/if}
    </p>
    <ul class="small num">
      {#each first.value.changes as change (change)}<li>{change}</li>{/each}
    </ul>
  {/if}
  {#if first.trouble}<p class="text-(--stop)" role="alert">{first.trouble}</p>{/if}
</section>
