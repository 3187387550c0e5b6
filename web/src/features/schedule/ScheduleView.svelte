<!-- Schedule: what is late and what would cure it, who does what, what is promised; then the day as one reads it, from the top. -->
<script lang="ts">
  import Plus from '@lucide/svelte/icons/plus';
  import { onMount } from 'svelte';
  import { choices } from '../../api/catalogue.svelte';
  import type { Shop } from '../../api/client';
  import { shortMachine } from '../../charts/labels';
  import { clockAt, dateOf, firstDayOf, firstOf, lanesOf, minuteOfDay } from '../../charts/board';
  import type { Group } from '../../ui/ActionMenu.svelte';
  import OptionsMenu from '../../ui/OptionsMenu.svelte';
  import Pages from '../../ui/Pages.svelte';
  import { useKeys } from '../../ui/keys.svelte';
  import ShopSheet from '../../ui/ShopSheet.svelte';
  import { counted } from '../../units/units';
  import BlockPanel from './BlockPanel.svelte';
  import BoardChart, { type Flag } from './BoardChart.svelte';
  import EventSheet from './EventSheet.svelte';
  import type { EventKind } from './events';
  import Late from './Late.svelte';
  import NowAndNext from './NowAndNext.svelte';
  import Promises from './Promises.svelte';
  import { Schedule } from './schedule.svelte';

  const schedule = new Schedule();
  onMount(() => {
    void schedule.begin();
    return () => schedule.leave();
  });
  /** The day that is shown: 0 is today. */
  let day = $state(0);
  let machines = $state(false);
  let shopOpen = $state(false);
  let happening = $state<EventKind>('away');
  let eventOpen = $state(false);
  const told = $derived(schedule.board);
  const board = $derived(told?.board);
  const workers = $derived((schedule.shop.value?.people ?? []).filter((one) => !one.away));
  const people = $derived(workers.map((one) => one.name));
  const firstDay = $derived(firstDayOf(board?.blocks ?? []));
  const shown = $derived((board?.blocks ?? []).filter((one) => one.day === day));
  const lanes = $derived(
    lanesOf(shown, people, machines ? (id) => shortMachine(choices.machine(id)?.label ?? id) : null),
  );
  const lastDay = $derived(Math.max(0, ...(board?.blocks ?? []).map((one) => one.day)));
  const from = $derived(day * 1440);
  /** After hours this day is empty, and the work goes on on another one. */
  const goesOn = $derived(firstOf((board?.blocks ?? []).filter((one) => one.day > day)));
  const dayName = (at: number, year = false) =>
    told
      ? dateOf(told.day, at).toLocaleDateString('en-GB', {
          weekday: year ? 'long' : 'short',
          day: 'numeric',
          month: year ? 'long' : 'short',
        })
      : '';
  const begins = $derived(minuteOfDay(board?.begins ?? '08:00'));
  const breaks = $derived(
    new Map(
      workers.map((one) => [
        one.name,
        (one.breaks ?? []).map(([a, b]): [number, number] => [minuteOfDay(a) - begins, minuteOfDay(b) - begins]),
      ]),
    ),
  );
  /** The longest day of anybody, in minutes from where the board begins. */
  const long = $derived(Math.max(60, ...workers.map((one) => minuteOfDay(one.ends ?? '16:30') - begins)));
  const flags = $derived.by((): Flag[] => {
    const within = (minute: number | null): minute is number =>
      minute !== null && minute >= from - begins && minute < from - begins + 1440;
    return (board?.jobs ?? []).flatMap((job) => [
      ...(within(job.ends_min)
        ? [{ id: `${job.id} ready`, job: job.id, minute: job.ends_min, what: 'ready' as const }]
        : []),
      ...(within(job.due_min) ? [{ id: `${job.id} due`, job: job.id, minute: job.due_min, what: 'due' as const }] : []),
    ]);
  });
  function say(kind: EventKind) {
    happening = kind;
    eventOpen = true;
  }

  const options = $derived.by((): Group[] => [
    {
      title: 'Today',
      actions: [
        { id: 'happened', label: 'Something else happened', shown: 'H', disabled: !board, run: () => say('broken') },
        told?.searching
          ? { id: 'stop', label: 'Stop looking for a better order', run: () => void schedule.stop() }
          : {
              id: 'search',
              label: 'Look for a better order',
              shown: 'O',
              disabled: !board || schedule.busy,
              run: () => void schedule.search(),
            },
        {
          id: 'machines',
          label: machines ? 'Show people' : 'Show machines',
          shown: 'M',
          run: () => (machines = !machines),
        },
      ],
    },
    { title: 'Shop', actions: [{ id: 'shop', label: 'People and rates', shown: 'S', run: () => (shopOpen = true) }] },
    {
      title: 'Take it along',
      actions: [
        { id: 'calendar', label: 'Calendar', href: '/api/day.ics', download: true },
        { id: 'csv', label: 'Table (CSV)', href: '/api/day.csv', download: true },
        { id: 'print', label: 'Print', run: () => window.print() },
      ],
    },
  ]);

  useKeys('Schedule', [
    { press: 'o', shown: 'O', does: 'Look for a better order', run: () => void schedule.search() },
    { press: 'j', shown: 'J', does: 'Urgent job', run: () => say('urgent') },
    { press: 'i', shown: 'I', does: 'Someone is ill', run: () => say('away') },
    { press: 'h', shown: 'H', does: 'Something else happened', run: () => say('broken') },
    { press: 'm', shown: 'M', does: 'Machines or people', run: () => (machines = !machines) },
    { press: 's', shown: 'S', does: 'People and rates', run: () => (shopOpen = true) },
    { press: 'Escape', shown: 'Esc', does: 'Close the block', run: () => (schedule.selected = null) },
  ]);
</script>

<svelte:head><title>Schedule – Kelbrast</title></svelte:head>

<div class="page">
  <header class="flex flex-wrap items-start gap-x-3 gap-y-2 pb-2.5">
    <div class="min-w-64 flex-1">
      <h1>{told ? dayName(day, true) : 'Schedule'}</h1>
      {#if board && told}
        <p class="dim">
          {clockAt(told.now_min, board.begins)} · all work done by
          <span data-testid="ends">{schedule.said(board.ends_min)}</span>
          · {counted(board.changes, 'wheel change')}
          {#if told.searching}<span role="status">· looking for a better order …</span>{/if}
        </p>
      {/if}
    </div>
    <div class="flex gap-2.5 max-md:w-full print:hidden">
      <button class="plain-button max-md:flex-1" disabled={!board} onclick={() => say('urgent')}
        ><Plus size={15} aria-hidden="true" /> Urgent job</button
      >
      <button class="plain-button max-md:flex-1" disabled={!board} onclick={() => say('away')}>Someone is ill</button>
      <OptionsMenu groups={options} />
    </div>
  </header>
  {#if schedule.trouble}
    <p class="panel p-6" role="alert">
      {schedule.trouble}. Open a <a class="underline" href="/jobs">job</a> and set it to “ordered” under Options, Customer
      and promise; or select jobs in the list and press Put on the schedule.
    </p>
  {:else if !board || !told}
    <p class="dim p-4" role="status">Planning the day …</p>
  {:else}
    <div class="columns">
      <div class="side">
        {#if schedule.block}
          <BlockPanel {schedule} block={schedule.block} piece={schedule.piece} begins={board.begins} {people} />
        {/if}
        {#if told.trouble}<p class="panel px-4 py-3 text-(--stop)" role="alert">{told.trouble}.</p>{/if}
        {#each told.left_out as one (one.job)}<p class="panel warning px-4 py-2.5">
            <b>Not on the board: {one.job}.</b>
            {one.reason}
          </p>{/each}
        <Late {schedule} board={told} />
        {#if !schedule.block}<NowAndNext {schedule} board={told} {people} />{/if}
        {#each board.shaking.filter((one) => one.exposure !== 'below') as one (`${one.person} ${one.day}`)}
          <p class="panel warning px-4 py-2.5">
            <b
              >{one.person} would be above the {one.exposure} value of hand-arm vibration ({Math.round(one.points)} points).</b
            >
            Share the hand machines. The maker’s figures and local rules come first.
          </p>
        {/each}
        <Promises {schedule} board={told} />
      </div>
      <section class="panel board-panel" aria-label="The day">
        {#if !shown.length && goesOn}
          <p class="p-3" role="status">
            Nothing is left for this day. Work goes on {schedule.said(goesOn.from_min)}.
            <button class="plain-button ml-2 print:hidden" onclick={() => (day = goesOn.day)}>Show it</button>
          </p>
        {/if}
        <div class="min-h-0 flex-1">
          <BoardChart
            {schedule}
            {lanes}
            {flags}
            {breaks}
            begins={board.begins}
            {from}
            {long}
            now={day === 0 ? told.now_min : null}
            done={told.done}
            onmove={(block, to, person) => void schedule.pin(block.key, to, person, null)}
          />
        </div>
        <footer class="flex items-center gap-3 border-t border-(--line) px-3 py-1.5 print:hidden">
          <button class="plain-button" aria-pressed={machines} onclick={() => (machines = !machines)}
            >{machines ? 'Show people' : 'Show machines'}</button
          >
          <span class="small dim flex-1 max-sm:hidden">Drag a block to move it; press it for its steps.</span>
          {#if lastDay > firstDay}
            <div class="ml-auto">
              <Pages
                count={lastDay - firstDay + 1}
                size={1}
                page={day - firstDay + 1}
                said={dayName(day)}
                before="The day before"
                next="The next day"
                onpage={(page) => (day = firstDay + page - 1)}
              />
            </div>
          {/if}
        </footer>
      </section>
    </div>
    <!-- On the wall the blocks are too narrow for their words: everybody's day in lines. -->
    <div class="mt-4 hidden grid-cols-2 gap-5 print:grid">
      {#each people as person (person)}
        <section>
          <h2>{person}</h2>
          <ul>
            {#each shown
              .filter((one) => one.person === person)
              .sort((a, b) => a.from_min - b.from_min) as one (`${one.key} ${one.kind} ${one.from_min}`)}
              <li class="small">
                <span class="num">{clockAt(one.from_min, board.begins)}</span>
                {one.job}: {one.label}
              </li>
            {/each}
          </ul>
        </section>
      {/each}
    </div>
  {/if}
</div>
{#if told}<EventSheet {schedule} board={told} {people} kind={happening} bind:open={eventOpen} />{/if}
<ShopSheet
  shop={schedule.shop.value}
  machines={choices.all?.machines ?? []}
  bind:open={shopOpen}
  onchange={(change) => void schedule.changeShop(change as Partial<Shop>)}
/>

<style>
  .page {
    display: flex;
    flex: 1;
    flex-direction: column;
    padding: 0.8rem 0.8rem 0.95rem;
  }
  .columns {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 0.8rem;
  }
  .side {
    display: flex;
    flex-direction: column;
    gap: 0.8rem;
  }
  .side > :global(*) {
    flex-shrink: 0;
  }
  .warning {
    border-left: 4px solid var(--stop);
  }
  .board-panel {
    display: flex;
    overflow: hidden;
    flex-direction: column;
    min-height: 36rem;
  }
  @media (min-width: 56rem) and (min-height: 30rem) {
    .page {
      min-height: 0;
      padding-inline: 1.2rem;
    }
    .columns {
      flex: 1;
      min-height: 0;
      grid-template: minmax(0, 1fr) / 24rem minmax(0, 1fr);
    }
    .side {
      min-height: 0;
      overflow-y: auto;
    }
    .board-panel {
      min-height: 0;
    }
  }
  @media (min-width: 56rem) and (max-width: 71.99rem) {
    .columns {
      grid-template-columns: 20rem minmax(0, 1fr);
    }
  }
  @media print {
    .columns {
      display: block;
    }
    .board-panel {
      display: block;
      overflow: visible;
    }
    .side {
      display: none;
    }
  }
</style>
