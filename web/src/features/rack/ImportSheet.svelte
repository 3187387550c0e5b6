<!-- A rack from a file: what it would change is shown before it does. -->
<script lang="ts">
  import { api, Problem, type RackChange } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import { dropped } from '../../api/dropped.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import FilePick from '../../ui/FilePick.svelte';

  let { open = $bindable(), ondone }: { open: boolean; ondone: () => void } = $props();
  let chosen = $state<string | null>(null);
  /** What the file holds: chosen here, or dropped on another view. */
  const text = $derived(chosen ?? dropped.rack);
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
      close();
      ondone();
    } catch (problem) {
      refused = problem as Error;
    }
  }

  function close() {
    open = false;
    refused = chosen = dropped.rack = null;
  }
</script>

<Dialog
  bind:open={() => open, (now) => now || close()}
  title={text === null ? 'Import a rack' : 'What the import changes'}
>
  {#if text === null}
    <FilePick
      label="Rack file"
      accept=".json,.csv"
      class="main-button"
      drop="or drop it here. JSON or CSV, as the rack is exported."
      onfiles={async ([file]) => (chosen = (await file?.text()) ?? null)}>Choose a file</FilePick
    >
  {:else if problem}
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
