<!-- What an import would change, before it does. -->
<script lang="ts">
  import { api, Problem, type RackChange } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import Dialog from '../../ui/Dialog.svelte';

  let { text, onclose, ondone }: { text: string | null; onclose: () => void; ondone: () => void } = $props();
  const preview = new Answer<RackChange[]>();
  let refused = $state.raw<Error | null>(null);
  const changes = $derived(preview.value);
  const problem = $derived(refused ?? preview.problem);
  const faults = $derived(problem instanceof Problem ? problem.faults : []);
  const real = $derived((changes ?? []).filter((one) => one.change !== 'same'));

  $effect(() => {
    if (text !== null) return preview.ask(api.previewRack(text));
  });

  async function take() {
    if (text === null) return;
    refused = null;
    try {
      await api.importRack(text);
      ondone();
    } catch (problem) {
      refused = problem as Error;
    }
  }

  function close() {
    refused = null;
    onclose();
  }
</script>

<Dialog bind:open={() => text !== null, (now) => now || close()} title="What the import changes">
  {#if problem}
    <div role="alert">
      <p class="font-semibold text-(--stop)">This file cannot be imported; nothing was changed.</p>
      <ul class="small mt-1 list-disc pl-5">
        {#each faults as fault (fault.field + fault.message)}
          <li>{fault.field ? `${fault.field}: ` : ''}{fault.message}</li>
        {:else}<li>{problem.message}</li>{/each}
      </ul>
    </div>
  {:else if changes}
    <p>
      {real.filter((one) => one.change === 'new').length} new, {real.filter((one) => one.change === 'changed').length} changed,
      {changes.length - real.length} the same. What is not in the file stays as it is.
    </p>
    <ul class="small my-2 max-h-72 overflow-auto">
      {#each real as one, at (at)}
        <li class="border-t border-(--line) py-1">
          <b>{one.name || one.label}</b>: {one.change === 'new' ? 'new' : `changes ${one.keys.join(', ')}`}
        </li>
      {/each}
    </ul>
    <button class="main-button" disabled={!real.length} onclick={take}>Import</button>
  {:else}
    <p class="dim" role="status">Reading …</p>
  {/if}
</Dialog>
