<!-- Today: who does what when, on which spindle; improved in the background, moved by hand, following the bench. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { choices } from '../../api/catalogue.svelte';
  import { beginsAt, clockAt, firstDayOf, firstOf, nextOf, rowsOf, whenOf } from '../../charts/board';
  import type { Shop } from '../../api/client';
  import { useKeys } from '../../ui/keys.svelte';
  import { duration } from '../../units/units';
  import BlockPanel from './BlockPanel.svelte';
  import EventSheet from './EventSheet.svelte';
  import JobsOfDay from './JobsOfDay.svelte';
  import BoardChart from './BoardChart.svelte';
  import ShopSheet from '../../ui/ShopSheet.svelte';
  import { Today } from './today.svelte';

  const today = new Today();
  onMount(() => {
    void today.begin();
    return () => today.leave();
  });
  let dayAt = $state(0);
  let shopOpen = $state(false);
  let eventOpen = $state(false);
  const told = $derived(today.board);
  const board = $derived(told?.board);
  const people = $derived((today.shop.value?.people ?? []).filter((one) => !one.away).map((one) => one.name));
  const firstDay = $derived(firstDayOf(board?.blocks ?? []));
  const shown = $derived((board?.blocks ?? []).filter((one) => one.day === firstDay + dayAt));
  const rows = $derived(rowsOf(shown, people, (id) => choices.machine(id)?.label ?? id));
  const from = $derived(beginsAt(firstDay + dayAt, firstDay));
  /** After hours this day is empty, and the work goes on on another one. */
  const goesOn = $derived(firstOf((board?.blocks ?? []).filter((one) => one.day > firstDay + dayAt)));
  const proven = $derived(board?.proven ?? []);
  const GOALS = { late: 'lateness', changes: 'changes', ends: 'end' } as const;
  const saved = $derived(board?.first_come);

  useKeys('Today', [
    { press: 'o', shown: 'O', does: 'Look for a better order', run: () => void today.search() },
    { press: 'h', shown: 'H', does: 'Something happened', run: () => (eventOpen = true) },
    { press: 's', shown: 'S', does: 'People and rates', run: () => (shopOpen = true) },
    { press: 'Escape', shown: 'Esc', does: 'Choose nothing', run: () => (today.selected = null) },
  ]);
</script>

<svelte:head><title>Today – Kelbrast</title></svelte:head>

<div class="mx-auto w-full max-w-[100rem] flex-1 p-5">
  <div class="mb-3 flex flex-wrap items-end gap-3">
    <div class="min-w-60 flex-1">
      <h1>Today</h1>
      <p class="small dim">
        Every job that is ordered or at the bench, by its plan: the wheels changed seldom, promises kept, waiting beside
        the work.
      </p>
    </div>
    <a class="plain-button print:hidden" href="/api/day.ics" download>Calendar</a>
    <a class="plain-button print:hidden" href="/api/day.csv" download>CSV</a>
    <button class="plain-button print:hidden" onclick={() => window.print()}>Print</button>
    <button class="plain-button print:hidden" disabled={!board} onclick={() => (eventOpen = true)}
      >Something happened <kbd>H</kbd></button
    >
    <button class="plain-button print:hidden" onclick={() => (shopOpen = true)}>People and rates <kbd>S</kbd></button>
    {#if told?.searching}
      <button class="main-button print:hidden" onclick={() => void today.stop()}>Stop looking</button>
    {:else}
      <button class="main-button print:hidden" disabled={!board || today.busy} onclick={() => void today.search()}
        >A better order <kbd>O</kbd></button
      >
    {/if}
  </div>
  {#if today.trouble}
    <p class="panel p-6" role="alert">
      {today.trouble}. <a class="underline" href="/">The jobs</a>: open one and say under Order that it is ordered.
    </p>
  {:else if !board}
    <p class="dim p-4" role="status">Planning the day …</p>
  {:else}
    <dl class="figures mb-3" aria-label="How good it is">
      <div>
        <dd class:text-(--stop)={board.late_min > 0}>{board.late_min ? duration(board.late_min) : 'none'}</dd>
        <dt>late</dt>
      </div>
      <div>
        <dd>{board.changes}</dd>
        <dt>
          wheel {board.changes === 1 ? 'change' : 'changes'}{saved ? `, ${saved.changes} if taken in order` : ''}
        </dt>
      </div>
      <div>
        <dd data-testid="ends">{clockAt(board.ends_min, board.begins)}{board.days > 1 ? `, day ${board.days}` : ''}</dd>
        <dt>
          done{saved && saved.ends_min > board.ends_min ? `, ${duration(saved.ends_min - board.ends_min)} sooner` : ''}
        </dt>
      </div>
      <div class="min-w-48">
        <dd class="!text-base">
          <span role="status"
            >{told?.searching ? 'Looking for a better order …' : proven.length ? 'Nothing is better by' : 'First plan'}
            {proven.map((goal) => GOALS[goal as keyof typeof GOALS]).join(', ')}</span
          >
        </dd>
        <dt>
          {board.gap !== null && board.gap > 0
            ? `the end could be up to ${Math.round(100 * board.gap)} % sooner; nobody knows`
            : ''}
        </dt>
      </div>
    </dl>
    {#if board.days > 1}
      <div class="mb-2 flex gap-2" role="group" aria-label="Day">
        {#each Array.from({ length: board.days }, (_, at) => at) as at (at)}
          <button
            class="plain-button"
            aria-pressed={at === dayAt}
            class:!border-(--ink)={at === dayAt}
            onclick={() => (dayAt = at)}>Day {at + 1}</button
          >
        {/each}
      </div>
    {/if}
    {#if !shown.length && goesOn}
      <p class="panel mb-2 p-3" role="status">
        Nothing is left for this day. Work goes on: {whenOf(goesOn, firstDay, board.begins)}.
        <button class="plain-button ml-2 print:hidden" onclick={() => (dayAt = goesOn.day - firstDay)}>Show it</button>
      </p>
    {/if}
    <BoardChart
      {rows}
      begins={board.begins}
      {from}
      long={510}
      now={dayAt === 0 && told ? told.now_min : null}
      selected={today.selected}
      done={told?.done ?? []}
      onselect={(key) => (today.selected = key)}
      onmove={(block, to, person) => void today.pin(block.key, to, person, null)}
    />
    <div class="mt-4 grid gap-5 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <section aria-label="What next">
        <h2>What next</h2>
        <ul class="grid gap-1.5">
          {#each people as person (person)}
            {@const next = nextOf(board.blocks, person, told?.done ?? [], told?.now_min ?? 0)}
            <li>
              <b>{person}</b>:
              {#if next}{whenOf(next, firstDay, board.begins)}
                <a class="underline" href="/jobs/{told?.ids[next.key]}">{next.job}</a>, {next.label}{:else}nothing more{/if}
            </li>
          {/each}
        </ul>
        {#if told}<JobsOfDay {today} board={told} />{/if}
        {#each board.shaking.filter((one) => one.exposure !== 'below') as one (`${one.person} ${one.day}`)}
          <p class="mt-2 text-(--stop)">
            {one.person} would be above the {one.exposure} value of hand-arm vibration ({Math.round(one.points)} points):
            share the hand machines. The maker’s figures and local rules come first.
          </p>
        {/each}
        {#if told?.trouble}<p class="mt-2 text-(--stop)" role="alert">{told.trouble}.</p>{/if}
        {#each told?.left_out ?? [] as one (one.job)}<p class="small mt-2 text-(--stop)">
            Not on the board: {one.job}: {one.reason}
          </p>{/each}
      </section>
      {#if today.block}<BlockPanel {today} block={today.block} begins={board.begins} {people} />{/if}
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
{#if told}<EventSheet {today} board={told} {people} bind:open={eventOpen} />{/if}
<ShopSheet
  shop={today.shop.value}
  machines={choices.all?.machines ?? []}
  bind:open={shopOpen}
  onchange={(change) => void today.changeShop(change as Partial<Shop>)}
/>

<style>
  .figures {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem 2.2rem;
  }
  dd {
    font-size: 1.5rem;
    font-weight: 700;
    line-height: 1.1;
  }
  dt {
    color: var(--dim);
    font-size: 0.87rem;
  }
</style>
