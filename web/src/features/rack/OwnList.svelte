<!-- What the shop has of its own: looked at, changed, retired, taken as a file and brought from one. -->
<script lang="ts">
  import { api, Problem, type KeptOwn, type OwnEntry, type Pack } from '../../api/client';
  import { choices } from '../../api/catalogue.svelte';
  import { dropped } from '../../api/dropped.svelte';
  import { Answer } from '../../ui/answer.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import FilePick from '../../ui/FilePick.svelte';
  import { notices } from '../../ui/notices.svelte';
  import { KINDS } from '../../own/form';
  import OwnSheet from '../../own/OwnSheet.svelte';
  import { difference, duration } from '../../units/units';

  let { open = $bindable(), onchanged }: { open: boolean; onchanged: () => void } = $props();
  const kept = new Answer<KeptOwn[]>();
  let changing = $state.raw<KeptOwn | null>(null);
  let describing = $state(false);
  let refused = $state.raw<Error | null>(null);
  let looked = $state.raw<{ text: string; pack: Pack } | null>(null);
  $effect(() => {
    if (open) kept.ask(api.own(), true);
  });
  $effect(() => {
    if (!open || dropped.own === null) return;
    const text = dropped.own;
    dropped.own = null;
    void look(text);
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

  /** A file is looked at as if it were here, before anything is taken in. */
  async function look(text: string) {
    refused = null;
    try {
      looked = { text, pack: await api.previewOwn(text) };
    } catch (problem) {
      refused = problem as Error;
    }
  }

  const take = (factors: boolean) =>
    doing(async () => {
      if (!looked) return;
      const { changes } = await api.importOwn(looked.text, factors);
      looked = null;
      notices.say(`Taken in: ${said(changes)}.`);
    });

  function said(changes: Pack['changes']): string {
    const count = (change: string) => changes.filter((one) => one.change === change).length;
    return `${count('new')} new, ${count('changed')} changed, ${count('same')} the same`;
  }
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
  {#if looked}
    <section class="panel mb-3 p-3" aria-label="What the file brings">
      <p>
        <b>{said(looked.pack.changes)}</b>{looked.pack.factors
          ? `; what its shop learnt about ${looked.pack.factors === 1 ? 'one tool' : `${looked.pack.factors} tools and metals`}`
          : ''}.
      </p>
      <table class="lines small my-2 w-full">
        <thead class="dim text-left"><tr><th>As if it were here</th><th>now</th><th>then</th></tr></thead>
        <tbody>
          {#each looked.pack.jobs as job, at (at)}
            <tr
              ><td>{job.title}</td><td class="num"
                >{job.now_minutes === null ? 'no plan' : duration(job.now_minutes)}</td
              ><td class="num"
                >{job.then_minutes === null ? 'no plan' : duration(job.then_minutes)}{job.now_minutes !== null &&
                job.then_minutes !== null &&
                Math.abs(job.then_minutes - job.now_minutes) >= 0.5
                  ? ` (${difference(job.then_minutes - job.now_minutes)})`
                  : ''}</td
              ></tr
            >
          {:else}<tr><td colspan="3">No job is open that could be planned with it.</td></tr>{/each}
        </tbody>
      </table>
      <div class="flex flex-wrap gap-2">
        {#if looked.pack.factors}
          <button class="main-button" onclick={() => void take(true)}>Take in everything</button>
          <button class="plain-button" onclick={() => void take(false)}>Without what was learnt</button>
        {:else}
          <button class="main-button" onclick={() => void take(false)}>Take it in</button>
        {/if}
        <button class="plain-button" onclick={() => (looked = null)}>Leave it</button>
      </div>
    </section>
  {/if}
  {#if kept.value?.length === 0 && !looked}
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
      class={looked ? 'plain-button' : 'main-button'}
      onclick={() => {
        changing = null;
        describing = true;
      }}>Describe one</button
    >
    <FilePick label="File of own things" accept=".json" onfiles={async ([file]) => file && void look(await file.text())}
      >From a file</FilePick
    >
    <a class="plain-button" href="/api/own/file.json" download>All as a file</a>
  </div>
</Dialog>
<OwnSheet bind:open={describing} kinds={KINDS.map((kind) => kind.id)} kept={changing} onsaved={() => void settled()} />
