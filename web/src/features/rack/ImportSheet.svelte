<!-- What an import would change, before it does. -->
<script lang="ts">
  import { api, Problem, type Fault, type RackChange } from '../../api/client';
  import Dialog from '../../ui/Dialog.svelte';

  let { text, onclose, ondone }: { text: string | null; onclose: () => void; ondone: () => void } = $props();
  let changes = $state.raw<RackChange[] | null>(null);
  let faults = $state.raw<Fault[]>([]);
  let trouble = $state<string | null>(null);
  const real = $derived((changes ?? []).filter((one) => one.change !== 'same'));
  let open = $state(false);

  $effect(() => {
    open = text !== null;
    changes = null;
    faults = [];
    trouble = null;
    if (text !== null) api.previewRack(text).then((told) => (changes = told), said);
  });
  $effect(() => {
    if (!open && text !== null) onclose();
  });

  function said(problem: Error) {
    trouble = problem.message;
    faults = problem instanceof Problem ? problem.faults : [];
  }

  function take() {
    if (text !== null) api.importRack(text).then(ondone, said);
  }
</script>

<Dialog bind:open title="What the import changes">
  {#if trouble}
    <div role="alert">
      <p class="font-semibold text-(--stop)">This file can not be imported; nothing was changed.</p>
      <ul class="small mt-1 list-disc pl-5">
        {#each faults as fault (fault.field + fault.message)}
          <li>{fault.field ? `${fault.field}: ` : ''}{fault.message}</li>
        {:else}<li>{trouble}</li>{/each}
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
