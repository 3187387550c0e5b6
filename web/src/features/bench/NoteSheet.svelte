<!-- A note; or what went wrong, from the fault table with its cure. A step may be left out, with the reason. -->
<script lang="ts">
  import { api, type FaultOfWork } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import Choice from '../../ui/Choice.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import Either from '../../ui/Either.svelte';
  import { DraftText } from '../../ui/draft-text.svelte';
  import type { BenchRun } from './run.svelte';

  let { bench, open, onclose }: { bench: BenchRun; open: boolean; onclose: () => void } = $props();
  let what = $state<'note' | 'trouble' | 'skipped' | 'stopped'>('note');
  let fault = $state('deep-lines');
  // svelte-ignore state_referenced_locally
  const draft = new DraftText(`kelbrast.note.${bench.run.id}`);
  const table = new Answer<FaultOfWork[]>();
  const seen = $derived(table.value?.find((one) => one.id === fault));
  const ASKS = {
    note: 'Note',
    trouble: 'What was done about it',
    skipped: 'Why this step is left out',
    stopped: 'Why the run is stopped',
  };
  const DOES = { note: 'Save the note', trouble: 'Save it', skipped: 'Leave the step out', stopped: 'Stop the run' };

  $effect(() => {
    if (open && !table.value) table.ask(api.faults());
  });

  async function keep() {
    const hand = bench.hand;
    const at = hand ? { piece: hand.piece, face: hand.face_id, route: hand.route, step: hand.step } : {};
    const tap =
      what === 'trouble' ? { kind: what, fault, words: draft.value, ...at } : { kind: what, words: draft.value, ...at };
    if (!(await bench.tap(tap))) return;
    draft.value = '';
    onclose();
  }
</script>

<Dialog bind:open={() => open, (now) => now || onclose()} title="Write it down" wide>
  <form
    class="grid gap-3 text-lg"
    onsubmit={(event) => {
      event.preventDefault();
      void keep();
    }}
  >
    <Either
      label="What is it"
      value={what}
      options={[
        { id: 'note', label: 'A note' },
        { id: 'trouble', label: 'Something went wrong' },
        ...(bench.hand ? ([{ id: 'skipped', label: 'Leave this step out' }] as const) : []),
        { id: 'stopped', label: 'Stop the run' },
      ]}
      onchange={(next) => (what = next)}
    />
    {#if what === 'trouble'}
      <Choice
        label="What is seen"
        value={fault}
        options={table.value?.map((one) => ({ id: one.id, label: one.seen })) ?? []}
        onchange={(id) => (fault = id)}
      />
      {#if seen}
        <div class="grid gap-1 rounded-lg bg-(--raised) p-3 text-base">
          <p><b>Why:</b> {seen.why.join(' Or: ')}</p>
          <p><b>Cure:</b> {seen.cure.join(' ')}</p>
          <p><b>Next time:</b> {seen.avoid}</p>
        </div>
      {/if}
    {/if}
    <label
      ><span class="small dim block">{ASKS[what]}</span><textarea
        class="field"
        rows="3"
        maxlength="2000"
        bind:value={draft.value}></textarea></label
    >
    <button class="main-button" disabled={what !== 'trouble' && !draft.value.trim()}>{DOES[what]}</button>
  </form>
</Dialog>
