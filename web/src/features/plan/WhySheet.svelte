<!-- The sum behind every number of the step: formula, values put in, and where each constant comes from. -->
<script lang="ts">
  import CopyTable from '../../ui/CopyTable.svelte';
  import type { Sum } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import { shown } from '../../units/shown.svelte';
  import type { JobDraft } from './draft.svelte';

  let { draft, open = $bindable() }: { draft: JobDraft; open: boolean } = $props();
  const answer = new Answer<Sum[]>();

  $effect(() => {
    if (open) answer.ask(draft.why());
  });

  const said = (value: number, unit: string, name: string) => shown.inUnit(value, unit, name, 3);
</script>

<Dialog bind:open title="Why: {draft.step?.label ?? ''}">
  {#if answer.trouble}<p class="text-(--stop)" role="alert">{answer.trouble}</p>{/if}
  {#each answer.value ?? [] as sum (sum.what)}
    <section class="mt-3 first:mt-0">
      <h2 class="flex justify-between">
        <span>{sum.what}</span><span class="num">{said(sum.result, sum.unit, sum.what)}</span>
      </h2>
      <p class="mono small my-1" data-cited>{sum.formula}</p>
      <table class="small w-full">
        <thead class="sr-only"><tr><th>Symbol</th><th>What</th><th>Value</th><th>Where from</th></tr></thead>
        <tbody>
          {#each sum.terms as term (term.symbol)}
            <tr>
              <td class="mono">{term.symbol}</td>
              <td>{term.name}</td>
              <td class="num text-right whitespace-nowrap">{said(term.value, term.unit, term.name)}</td>
              <td class="dim" data-cited title={term.source}
                >{term.kind ? `${term.kind}: ${term.source}` : 'computed'}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
      <CopyTable />
    </section>
  {/each}
  <p class="small dim mt-4">
    Published: read in the source. Memory: published, quoted from memory. Practice: common practice. Fitted: chosen to
    reproduce check values. Assumed: a round figure, put in your own.
  </p>
</Dialog>

<style>
  td {
    padding: 0.1rem 0.7rem 0.1rem 0;
    vertical-align: top;
  }
</style>
