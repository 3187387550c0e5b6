<!-- Jobs: what was promised and what is next, first; the rest of a job in its menu. -->
<script lang="ts">
  import Plus from '@lucide/svelte/icons/plus';
  import { untrack } from 'svelte';
  import { writes } from '../../api/writes.svelte';
  import { navigate } from '../../app/router';
  import { useKeys } from '../../ui/keys.svelte';
  import { api, type JobSummary, type Shop } from '../../api/client';
  import { lookAtDemo } from '../../app/demo';
  import type { Group } from '../../ui/ActionMenu.svelte';
  import OptionsMenu from '../../ui/OptionsMenu.svelte';
  import { Answer } from '../../ui/answer.svelte';
  import Either from '../../ui/Either.svelte';
  import Sheet from '../../ui/Sheet.svelte';
  import { shown } from '../../units/shown.svelte';
  import { dueGroup } from '../../units/due';
  import { loadFirstHour } from '../../app/first-hour';
  import JobRow from './JobRow.svelte';
  import { loadImport, loadPages } from './later';
  import { JobList, PAGE } from './list.svelte';
  import { WAITS } from './next';

  const list = new JobList();
  // A job that was just left may still be on its way: the list follows when it has arrived.
  $effect(() => {
    void writes.done;
    list.load();
  });
  $effect(() => {
    if (list.planning) untrack(() => list.load(true));
  });
  $effect(() => {
    void writes.done;
    list.loadDay();
  });
  const known = new Answer<Shop>();
  $effect(() => {
    if (list.empty && !untrack(() => known.value)) known.ask(api.shop());
  });
  const shop = $derived(known.value);
  const asking = $derived(list.empty && shop !== null && !shop.welcomed);
  let FirstHour = $state.raw<Awaited<ReturnType<typeof loadFirstHour>> | null>(null);
  $effect(() => {
    if (asking) void loadFirstHour().then((loaded) => (FirstHour = loaded));
  });
  let importing = $state(false);
  let over = $state(false);
  let selecting = $state(false);
  let marked = $state<number[]>([]);
  const STAGES = [
    { id: 'open', label: 'Open' },
    { id: 'finished', label: 'Finished' },
  ] as const;
  const GROUPS = [
    { id: 'overdue', label: 'Overdue' },
    { id: 'today', label: 'Due today' },
    { id: 'week', label: 'This week' },
    { id: 'later', label: 'Later' },
    { id: 'none', label: 'No promise' },
    { id: 'waits', label: 'Waiting for a decision' },
    { id: 'finished', label: '' },
  ] as const;

  function groupOf(job: JobSummary): (typeof GROUPS)[number]['id'] {
    if (list.stage === 'finished') return 'finished';
    return job.state === 'unreadable' || WAITS.includes(job.next) ? 'waits' : dueGroup(job.due);
  }
  const groups = $derived(
    GROUPS.map((group) => ({ ...group, jobs: (list.jobs ?? []).filter((job) => groupOf(job) === group.id) })).filter(
      (group) => group.jobs.length,
    ),
  );
  const chosen = $derived((list.jobs ?? []).filter((job) => marked.includes(job.id)));
  const ids = $derived(chosen.map((job) => job.id));

  function printMarked() {
    for (const id of ids) window.open(`/api/jobs/${id}/card.pdf?inch=${shown.system === 'inch'}`, '_blank', 'noopener');
  }

  async function order() {
    await list.order(ids);
    await navigate('/schedule');
  }

  async function removeMarked() {
    await list.remove(chosen);
    marked = [];
  }

  async function begin() {
    const id = await list.create();
    if (id !== null) await navigate('/jobs/:id', { params: { id: String(id) }, hash: 'new' });
  }

  function drop(event: DragEvent) {
    event.preventDefault();
    over = false;
    if (event.dataTransfer?.files.length) void list.take([...event.dataTransfer.files]);
  }

  const options = $derived.by((): Group[] => [
    {
      actions: [
        { id: 'import', label: 'Import job files', shown: 'I', run: () => (importing = true) },
        {
          id: 'select',
          label: selecting ? 'Stop selecting' : 'Select several',
          shown: 'S',
          disabled: !list.jobs?.length,
          run: select,
        },
      ],
    },
  ]);

  function select() {
    selecting = !selecting;
    marked = [];
  }

  useKeys('Jobs', [
    { press: 'n', shown: 'N', does: 'New job', run: () => void begin() },
    { press: 'i', shown: 'I', does: 'Import job files', run: () => (importing = true) },
    { press: 's', shown: 'S', does: 'Select several', run: select },
  ]);
</script>

<svelte:head><title>Jobs – Kelbrast</title></svelte:head>

<!-- svelte-ignore a11y_no_static_element_interactions (Import under Options does the same) -->
<div
  class="mx-auto w-full max-w-7xl flex-1 p-3.5 md:px-4.5"
  class:dropping={over}
  ondragover={(event) => {
    event.preventDefault();
    over = true;
  }}
  ondragleave={() => (over = false)}
  ondrop={drop}
>
  <header class="mb-2 flex flex-wrap items-center gap-3">
    <h1>Jobs</h1>
    {#if list.jobs && !list.empty}
      <input
        class="field min-h-10 min-w-40 flex-1 max-md:order-1 max-md:basis-full"
        type="search"
        aria-label="Find by title, customer, material or note"
        placeholder="Find by title, customer, material or note"
        bind:value={list.words}
        oninput={() => (list.pageAt = 1)}
        autocomplete="off"
      />
      <div class="w-44 max-md:order-1 max-md:w-full">
        <Either
          label="Which jobs"
          value={list.stage}
          options={STAGES}
          onchange={(stage) => {
            list.stage = stage;
            list.pageAt = 1;
            marked = [];
          }}
        />
      </div>
    {:else}<span class="flex-1"></span>{/if}
    <OptionsMenu groups={options} class="max-md:ml-auto" />
    <button class="main-button" onclick={begin}
      ><Plus size={17} aria-hidden="true" />New job
      <kbd class="rounded border px-1.5 max-md:hidden">N</kbd></button
    >
  </header>
  <Sheet load={loadImport} props={{ ontake: (files: File[]) => void list.take(files) }} bind:open={importing} />

  {#if selecting && list.jobs}
    <div class="panel mb-2 flex flex-wrap items-center gap-2 px-3 py-2" role="group" aria-label="Selected jobs">
      <label class="flex items-center gap-2 font-semibold">
        <input
          type="checkbox"
          class="size-[24px]"
          checked={marked.length > 0 && marked.length === list.jobs.length}
          indeterminate={marked.length > 0 && marked.length < list.jobs.length}
          onchange={(event) => (marked = event.currentTarget.checked ? (list.jobs ?? []).map((job) => job.id) : [])}
        />
        Select all
      </label>
      <span class="dim num flex-1">{marked.length} of {list.jobs.length}</span>
      <button class="plain-button" disabled={!ids.length} onclick={() => list.exportAll(ids)}>Export</button>
      <button class="plain-button" disabled={!ids.length} onclick={printMarked}>Job cards</button>
      <button class="plain-button" disabled={!ids.length} onclick={() => void removeMarked()}>Delete</button>
      <button class="plain-button" disabled={!ids.length} onclick={() => void order()}>Put on the schedule</button>
      <button class="plain-button" onclick={select}>Done</button>
    </div>
  {/if}

  {#if list.trouble}
    <p class="panel p-4 text-(--stop)" role="alert">
      {list.trouble} <button class="underline" onclick={() => list.load()}>Try again</button>
    </p>
  {:else if list.jobs === null}
    <p class="dim p-4">Reading the jobs …</p>
  {:else if asking && shop}
    {#if FirstHour}<FirstHour
        {shop}
        ondone={begin}
        onskipped={() => known.ask(api.shop(), true)}
        ondemo={lookAtDemo}
      />{/if}
  {:else if list.empty}
    <div class="panel p-10 text-center">
      <h2 class="text-xl!">No jobs yet</h2>
      <p class="mx-auto mt-2 max-w-md">
        Describe a part: what it is made of, what is wrong with each face and what it should become. The steps, speeds
        and minutes follow.
      </p>
      <button class="main-button mt-5" onclick={begin}>Describe the first part</button>
      <p class="small dim mt-4">
        Or drop a job file here, or <button class="underline" onclick={lookAtDemo}>look at the demo workshop</button>.
      </p>
    </div>
  {:else}
    {#each groups as group (group.id)}
      {#if group.label}<h2 class="dim mt-3 mb-1.5 px-1">{group.label}</h2>{/if}
      <ul class="panel overflow-hidden" aria-label={group.label || 'Jobs'}>
        {#each group.jobs as job (job.id)}
          <JobRow
            {job}
            {list}
            {selecting}
            marked={marked.includes(job.id)}
            onmark={(on) => (marked = on ? [...marked, job.id] : marked.filter((id) => id !== job.id))}
          />
        {/each}
      </ul>
    {:else}<p class="p-4">
        {list.words ? 'No job is like that.' : list.stage === 'open' ? 'No open job.' : 'No finished job yet.'}
      </p>{/each}
    {#if list.count > PAGE}
      {#await loadPages() then { default: Pages }}
        <div class="mx-auto mt-3 w-fit">
          <Pages
            count={list.count}
            size={PAGE}
            page={list.pageAt}
            said="{(list.pageAt - 1) * PAGE + 1} to {Math.min(list.count, list.pageAt * PAGE)} of {list.count}"
            before="The page before"
            next="The next page"
            onpage={(page) => {
              list.pageAt = page;
              marked = [];
            }}
          />
        </div>
      {/await}
    {/if}
  {/if}
</div>

<style>
  .dropping {
    outline: 3px dashed var(--go);
    outline-offset: -8px;
    border-radius: 14px;
  }
</style>
