<script lang="ts">
  import { untrack } from 'svelte';
  import CopyTable from '../../ui/CopyTable.svelte';
  import Plus from '@lucide/svelte/icons/plus';
  import Upload from '@lucide/svelte/icons/upload';
  import { writes } from '../../api/writes.svelte';
  import { navigate } from '../../app/router';
  import { useKeys } from '../../ui/keys.svelte';
  import { choices } from '../../api/catalogue.svelte';
  import { api, type Shop } from '../../api/client';
  import { lookAtDemo } from '../../app/demo';
  import { Answer } from '../../ui/answer.svelte';
  import Choice from '../../ui/Choice.svelte';
  import { shown } from '../../units/shown.svelte';
  import { loadFirstHour } from '../../app/first-hour';
  import JobRow from './JobRow.svelte';
  import { JobList, MOST, PAGE, SORTS } from './list.svelte';

  const list = new JobList();
  // A job that was just left may still be on its way: the list follows when it has arrived.
  $effect(() => {
    void writes.done;
    list.load();
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
  let picker = $state<HTMLInputElement>();
  let over = $state(false);
  let marked = $state<number[]>([]);
  const SHOWN = [
    { id: 'all', label: 'All' },
    { id: 'open', label: 'Not done yet' },
  ];

  function each(address: (id: number) => string) {
    for (const id of marked) window.open(address(id), '_blank', 'noopener');
  }
  const exportMarked = () => list.exportAll(marked);
  const printMarked = () => each((id) => `/api/jobs/${id}/card.pdf?inch=${shown.system === 'inch'}`);

  async function order() {
    await list.order(marked);
    await navigate('/today');
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

  useKeys('Jobs', [
    { press: 'n', shown: 'N', does: 'New job', run: () => void begin() },
    { press: 'i', shown: 'I', does: 'Import a job file', run: () => picker?.click() },
  ]);
</script>

<svelte:head><title>Jobs – Kelbrast</title></svelte:head>

<!-- svelte-ignore a11y_no_static_element_interactions (the Import button does the same) -->
<div
  class="mx-auto w-full max-w-7xl flex-1 p-5"
  class:dropping={over}
  ondragover={(event) => {
    event.preventDefault();
    over = true;
  }}
  ondragleave={() => (over = false)}
  ondrop={drop}
>
  <div class="mb-4 flex flex-wrap items-end gap-3">
    <div class="min-w-60 flex-1">
      <h1>Jobs</h1>
      <p class="small dim">Each is a part, its faces, and the route to the finish it needs.</p>
    </div>
    <button class="plain-button" onclick={() => picker?.click()}><Upload size={16} />Import a job file</button>
    <button class="main-button" onclick={begin}><Plus size={17} />New job <kbd class="opacity-75">N</kbd></button>
    <input
      bind:this={picker}
      type="file"
      class="hidden"
      accept=".json,application/json,.zip,application/zip"
      multiple
      aria-label="Job files"
      onchange={(event) => {
        void list.take([...(event.currentTarget.files ?? [])]);
        event.currentTarget.value = '';
      }}
    />
  </div>

  {#if list.trouble}
    <p class="panel p-4 text-(--stop)" role="alert">
      {list.trouble} <button class="underline" onclick={() => list.load()}>Try again</button>
    </p>
  {:else if list.jobs === null}
    <p class="dim p-4">Reading the jobs …</p>
  {:else if asking && shop}
    {#if FirstHour}<FirstHour {shop} ondone={begin} ondemo={lookAtDemo} />{/if}
  {:else if list.empty}
    <div class="panel p-10 text-center">
      <h2 class="text-xl">No jobs yet</h2>
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
    <div class="mb-3 flex flex-wrap items-end gap-3">
      <label class="min-w-44 flex-1">
        <span class="small dim block">Find by title, customer, material or note</span>
        <input class="field" type="search" bind:value={list.words} autocomplete="off" />
      </label>
      <div class="w-44">
        <Choice
          label="Show"
          value={list.stage}
          options={[...SHOWN, ...(choices.all?.states ?? [])]}
          onchange={(id) => (list.stage = id)}
        />
      </div>
      <div class="w-44"><Choice label="Order" value={list.by} options={SORTS} onchange={(id) => (list.by = id)} /></div>
      {#if marked.length}
        <div class="flex flex-wrap items-center gap-2" role="group" aria-label="With those that are marked">
          <span class="small">{marked.length} marked:</span>
          <button class="plain-button" onclick={exportMarked}>Export</button>
          <button class="plain-button" onclick={printMarked}>Job cards</button>
          <button class="plain-button" onclick={() => void order()}>Put on the schedule</button>
        </div>
      {/if}
    </div>
    <table class="panel w-full border-separate border-spacing-0 overflow-hidden">
      <thead class="small dim text-left">
        <tr>
          <th><span class="sr-only">Mark</span></th><th class="lg:w-[28%]">Part</th><th class="max-lg:hidden"
            >Material</th
          ><th class="max-sm:hidden">Finish</th><th class="!text-right max-sm:hidden">Pieces</th>
          <th class="!text-right">Hands-on</th><th class="max-lg:hidden">Promised</th><th>State</th><th
            ><span class="sr-only">Actions</span></th
          >
        </tr>
      </thead>
      <tbody>
        {#each list.jobs as job (job.id)}<JobRow
            {job}
            {list}
            marked={marked.includes(job.id)}
            onmark={(on) => (marked = on ? [...marked, job.id] : marked.filter((id) => id !== job.id))}
          />{/each}
      </tbody>
    </table>
    <CopyTable />
    {#if !list.jobs.length}<p class="p-4">No job is like that.</p>{/if}
    {#if list.count > list.jobs.length}
      <p class="p-4">
        {list.jobs.length} of {list.count}.
        <button class="plain-button" onclick={() => (list.most += PAGE)} disabled={list.most >= MOST}>Show more</button>
        {#if list.most >= MOST}<span class="small dim">Narrow it down to see the others.</span>{/if}
      </p>
    {/if}
    <p class="small dim mt-3">Drop job files anywhere on this page to bring them in.</p>
  {/if}
</div>

<style>
  th {
    padding: 0.5rem 0.9rem;
    font-weight: 550;
    border-bottom: 1px solid var(--line);
  }
  .dropping {
    outline: 3px dashed var(--go);
    outline-offset: -8px;
    border-radius: 14px;
  }
</style>
