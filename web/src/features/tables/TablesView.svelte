<!-- What the computation knows: every figure with its unit, its source, and how well founded it is. -->
<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import { Collapsible } from '@skeletonlabs/skeleton-svelte';
  import Scrolling from '../../ui/Scrolling.svelte';
  import { searchParams } from 'sv-router';
  import { choices } from '../../api/catalogue.svelte';
  import { api, type Figures } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import { shown } from '../../units/shown.svelte';
  import CopyTable from '../../ui/CopyTable.svelte';
  import Either from '../../ui/Either.svelte';
  import GradeTable from './GradeTable.svelte';
  import { entries, TABS, type Tab } from './entries';

  const shownTab = $derived.by((): Tab => {
    const asked = searchParams.get('show');
    return TABS.find((tab) => tab.id === asked)?.id ?? 'materials';
  });
  const find = $derived(String(searchParams.get('find') ?? ''));
  const behind = new Answer<Figures>();
  behind.ask(api.figures());
  const rows = $derived(
    choices.all && shownTab !== 'grades'
      ? entries(choices.all, behind.value, shownTab).filter((entry) => fits(entry.label + entry.about))
      : [],
  );

  function fits(text: string): boolean {
    return find
      .toLowerCase()
      .split(/\s+/)
      .every((word) => text.toLowerCase().includes(word));
  }
</script>

<svelte:head><title>Tables – Kelbrast</title></svelte:head>

<div class="mx-auto w-full max-w-6xl flex-1 p-5">
  <div class="mb-4 flex flex-wrap items-end gap-4">
    <div class="min-w-64 flex-1">
      <h1>Tables</h1>
      <p class="small dim">Everything the plans are computed from, and how well founded each figure is.</p>
    </div>
    <div class="w-full max-w-[30rem]">
      <Either label="Table" value={shownTab} options={TABS} onchange={(tab) => searchParams.set('show', tab)} />
    </div>
    <input
      class="field !w-56"
      aria-label="Filter"
      placeholder="Filter"
      value={find}
      oninput={(event) => searchParams.set('find', event.currentTarget.value)}
    />
  </div>
  {#if shownTab === 'grades'}
    <GradeTable {find} />
  {:else}
    <ul class="grid gap-2">
      {#each rows as entry (entry.id)}
        <li class="panel">
          <Collapsible class="gap-0! items-stretch!">
            <Collapsible.Trigger
              class="grid w-full cursor-pointer grid-cols-[minmax(0,1.2fr)_minmax(0,2fr)_auto] gap-4 px-4 py-2.5 text-left"
            >
              <b class="font-semibold">{entry.label}</b><span class="dim">{entry.about}</span>
              <ChevronDown size={15} class="dim self-center" aria-hidden="true" />
            </Collapsible.Trigger>
            <Collapsible.Content>
              {#if entry.figures.length}
                <Scrolling label="Figures of {entry.label}">
                  <table class="small mx-4 mb-3">
                    <thead class="dim text-left"
                      ><tr><th>Figure</th><th>Value</th><th>Kind</th><th>Source</th></tr></thead
                    >
                    <tbody>
                      {#each entry.figures as figure (figure.name)}
                        <tr>
                          <td>{figure.name}</td>
                          <td class="num">{shown.inUnit(figure.value, figure.unit, figure.name)}</td>
                          <td title={figure.kind_label}>{figure.kind}</td>
                          <td class="dim" data-cited>{figure.source}{figure.locator ? `; ${figure.locator}` : ''}</td>
                        </tr>
                      {/each}
                    </tbody>
                  </table></Scrolling
                >
                <CopyTable />
              {/if}
            </Collapsible.Content>
          </Collapsible>
        </li>
      {:else}
        <li class="dim p-4">Nothing here by that name.</li>
      {/each}
    </ul>
  {/if}
</div>

<style>
  td,
  th {
    padding: 0.15rem 1rem 0.15rem 0;
    vertical-align: top;
  }
</style>
