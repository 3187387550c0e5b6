<!-- What the shop has of its own: looked at, changed, retired, taken as a file and brought from one. -->
<script lang="ts">
  import { api, Problem, type KeptOwn, type OwnEntry } from '../../api/client';
  import { choices } from '../../api/catalogue.svelte';
  import { dropped } from '../../api/dropped.svelte';
  import { Answer } from '../../ui/answer.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import FilePick from '../../ui/FilePick.svelte';
  import { notices } from '../../ui/notices.svelte';
  import { KINDS } from '../../own/form';
  import OwnSheet from '../../own/OwnSheet.svelte';
  import { counted } from '../../units/units';

  let { open = $bindable(), onchanged }: { open: boolean; onchanged: () => void } = $props();
  const kept = new Answer<KeptOwn[]>();
  let changing = $state.raw<KeptOwn | null>(null);
  let describing = $state(false);
  let refused = $state.raw<Error | null>(null);
  $effect(() => {
    if (open) kept.ask(api.own(), true);
  });
  $effect(() => {
    if (!open || dropped.own === null) return;
    const text = dropped.own;
    dropped.own = null;
    void take(text);
  });
  const kinds = $derived(
    KINDS.map((kind) => ({ ...kind, entries: (kept.value ?? []).filter((one) => one.entry.kind === kind.id) })),
  );

  async function settled() {
    kept.ask(api.own(), true);
    await choices.again();
    onchanged();
  }

  async function doing(act: () => Promise<unknown>) {
    refused = null;
    try {
      await act();
      await settled();
    } catch (problem) {
      refused = problem as Error;
    }
  }

  const retire = ({ entry, revision }: KeptOwn) =>
    doing(() => api.changeOwn(entry.id ?? '', { ...entry, retired: !entry.retired } as OwnEntry, revision));

  const remove = ({ entry }: KeptOwn) =>
    doing(async () => {
      await api.removeOwn(entry.id ?? '');
      notices.say(`Deleted “${entry.name}”.`, 'done', {
        label: 'Undo',
        run: () => void doing(() => api.addOwn(entry)),
      });
    });

  const take = (text: string) =>
    doing(async () => {
      const changes = await api.importOwn(text);
      const count = (change: string) => changes.filter((one) => one.change === change).length;
      notices.say(
        `${counted(count('new'), 'new entry').replace('entrys', 'entries')}, ${count('changed')} changed, ${count('same')} the same.`,
      );
    });
</script>

<Dialog bind:open title="The shop’s own" wide>
  {#if refused}
    <div class="mb-3" role="alert">
      <p class="font-semibold text-(--stop)">Nothing was changed.</p>
      <ul class="small mt-1 list-disc pl-5">
        {#each refused instanceof Problem && refused.faults.length ? refused.faults : [] as fault (fault.field + fault.message)}
          <li>{fault.field ? `${fault.field}: ` : ''}{fault.message}</li>
        {:else}<li>{refused.message}</li>{/each}
      </ul>
    </div>
  {/if}
  {#if kept.value?.length === 0}
    <p class="dim">
      Nothing yet. A belt, a paste, a bronze or a finish that is not listed is described as like a known one, but for
      what differs.
    </p>
  {/if}
  {#each kinds as kind (kind.id)}
    {#if kind.entries.length}
      <h2 class="mt-3">{kind.label}s</h2>
      <ul>
        {#each kind.entries as one (one.entry.id)}
          <li
            class="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-(--line) py-1.5"
            class:dim={one.entry.retired}
          >
            <span class="min-w-0 flex-1"
              ><b>{one.entry.name}</b>
              <span class="small dim block"
                >{[one.entry.by, one.entry.on].filter(Boolean).join(', ')}{one.entry.retired ? ', retired' : ''}</span
              ></span
            >
            <button
              class="plain-button small"
              onclick={() => {
                changing = one;
                describing = true;
              }}>Change</button
            >
            <button class="plain-button small" onclick={() => void retire(one)}
              >{one.entry.retired ? 'In use again' : 'Retire'}</button
            >
            <button class="plain-button small" onclick={() => void remove(one)}>Delete</button>
          </li>
        {/each}
      </ul>
    {/if}
  {/each}
  <div class="mt-4 flex flex-wrap gap-2">
    <button
      class="main-button"
      onclick={() => {
        changing = null;
        describing = true;
      }}>Describe one</button
    >
    <FilePick label="File of own things" accept=".json" onfiles={async ([file]) => file && void take(await file.text())}
      >From a file</FilePick
    >
    <a class="plain-button" href="/api/own/file.json" download>All as a file</a>
  </div>
</Dialog>
<OwnSheet bind:open={describing} kinds={KINDS.map((kind) => kind.id)} kept={changing} onsaved={() => void settled()} />
