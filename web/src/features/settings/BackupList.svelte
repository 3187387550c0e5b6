<!-- Backups of everything: now, every day, looked into before they are put back, taken elsewhere as a file. -->
<script lang="ts">
  import FilePick from '../../ui/FilePick.svelte';
  import CopyTable from '../../ui/CopyTable.svelte';
  import { api, type Backups, type RestoreLook } from '../../api/client';
  import { dropped } from '../../api/dropped.svelte';
  import { Answer } from '../../ui/answer.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import { notices } from '../../ui/notices.svelte';
  import { figures } from '../../units/units';
  import { when } from './when';

  const SHOWN = 8;
  const KINDS = {
    daily: 'of the day',
    asked: 'asked for',
    'before-restore': 'before a restore',
    brought: 'brought from a file',
    damaged: 'damaged, set aside',
  } as const;
  const WORDS: Record<string, string> = {
    jobs: 'Jobs',
    job_states: 'Status of jobs',
    runs: 'Runs',
    run_events: 'Taps of runs',
    run_steps: 'Steps of runs',
    rack_items: 'Items on the rack',
    rack_events: 'What happened to them',
    photos: 'Photos of runs',
    part_photos: 'Photos of parts',
    sizings: 'Parts at the gauge',
    own_entries: 'The shop’s own things',
    trials: 'Trial pieces',
    quotes: 'Quotes',
    recipes: 'House ways',
    care_done: 'Care that was done',
    settings: 'Settings',
    observations: 'What runs taught',
    practice_answers: 'Answers of the practice',
  };
  /** Bytes, as a person reads them. */
  const size = (bytes: number) => (bytes >= 1e9 ? `${figures(bytes / 1e9, 2)} GB` : `${figures(bytes / 1e6, 2)} MB`);
  const kept = new Answer<Backups>();
  const taken = $derived(kept.value?.backups.reduce((sum, one) => sum + one.size, 0) ?? 0);
  kept.ask(api.backups());
  const changes = new Answer<RestoreLook>();
  let looking = $state<string | null>(null);
  let busy = $state(false);
  /** Somebody saw that less would be there afterwards, and wants it all the same. */
  let sure = $state(false);

  async function doing(act: () => Promise<unknown>) {
    busy = true;
    try {
      await act();
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    } finally {
      busy = false;
    }
  }
  const make = () =>
    doing(async () => {
      await api.makeBackup();
      kept.ask(api.backups(), true);
    });
  const bring = (file: File) =>
    doing(async () => {
      const brought = await api.bringBackup(file);
      kept.ask(api.backups(), true);
      look(brought.name);
    });
  const forget = (name: string) =>
    doing(async () => {
      await api.forgetBackup(name);
      kept.ask(api.backups(), true);
    });
  function look(name: string) {
    looking = name;
    sure = false;
    changes.ask(api.backupChanges(name));
  }
  $effect(() => {
    if (dropped.backup === null) return;
    look(dropped.backup);
    dropped.backup = null;
    kept.ask(api.backups(), true);
  });
  const restore = (name: string) =>
    doing(async () => {
      await api.restoreBackup(name, sure);
      location.assign('/'); // every page holds what was there before
    });
</script>

<section class="panel grid content-start gap-3 p-4" aria-label="Backups">
  <div class="flex items-center gap-3">
    <h2 class="flex-1 !text-lg">Backups</h2>
    <button class="plain-button touch" disabled={busy} onclick={make}>Back up now</button>
  </div>
  <p class="small dim">
    One is made every day while the program runs, and the newest fourteen are kept; what you ask for stays. Each is
    checked. They lie in <span class="mono">{kept.value?.folder ?? ''}</span>: copy them to another disk now and then.
  </p>
  {#if kept.value}
    {@const now = kept.value.database}
    <p class="small num">
      Everything takes {size(now.size)}, and its backups {size(taken)}; those that are made by themselves stop at
      {size(kept.value.most)}. {size(now.free)} of the disk are free.
      {#if now.looking_through}It is being looked through for damage …{:else if now.looked_through}Last looked through
        for damage: {when(now.looked_through)}.{/if}
    </p>
  {/if}
  <div class="flex flex-wrap items-center gap-2">
    <a class="plain-button inline-flex touch items-center" href="/api/everything.zip" download
      >Everything as one archive</a
    >
    <FilePick
      label="An archive of everything, or a backup"
      accept=".zip,.sqlite"
      disabled={busy}
      class="plain-button touch"
      onfiles={([file]) => file && void bring(file)}>Restore from a file …</FilePick
    >
  </div>
  {#if kept.trouble}<p class="text-(--stop)" role="alert">{kept.trouble}</p>{/if}
  <ul class="grid gap-1" aria-label="Backups that are there">
    {#each kept.value?.backups.slice(0, SHOWN) ?? [] as one (one.name)}
      <li class="flex flex-wrap items-center gap-x-3 border-t border-(--line) py-1">
        <span class="num flex-1">{when(one.at)} <span class="small dim">{KINDS[one.kind]}</span></span>
        <span class="num small dim">{size(one.size)}</span>
        <a class="go underline" href="/api/backups/{one.name}" download>As a file</a>
        <button class="plain-button" aria-label="Look into the backup of {when(one.at)}" onclick={() => look(one.name)}
          >Put back …</button
        >
        <button
          class="plain-button"
          aria-label="Forget the backup of {when(one.at)}"
          onclick={() => void forget(one.name)}>Forget</button
        >
      </li>
    {:else}
      <li class="dim">{kept.value ? 'None yet.' : '…'}</li>
    {/each}
  </ul>
</section>
<Dialog
  bind:open={() => looking !== null, (open) => open || (looking = null)}
  title="What putting it back would change"
>
  {#if changes.trouble}<p class="text-(--stop)" role="alert">{changes.trouble}</p>{/if}
  {#if changes.value}
    {#if changes.value.tables.length}
      <table class="lines num w-full" aria-label="What would change">
        <thead class="small dim text-left"
          ><tr
            ><th><span class="sr-only">Of what</span></th><th>Now</th><th>Then</th><th>Come back</th><th>Go</th><th
              >As they were</th
            ></tr
          ></thead
        >
        <tbody>
          {#each changes.value.tables as one (one.table)}
            <tr
              ><td>{WORDS[one.table] ?? one.table}</td><td>{one.now}</td><td class:text-(--stop)={one.then < one.now}
                >{one.then}</td
              ><td>{one.come}</td><td>{one.go}</td><td>{one.other}</td></tr
            >
          {/each}
        </tbody>
      </table>
      <CopyTable />
      <p class="small dim mt-2">What is there now is saved as a backup first, so this can be undone.</p>
    {:else}
      <p>Nothing: everything is as it was then.</p>
    {/if}
    {#if changes.value.doubts}
      <label class="mt-3 flex gap-2">
        <input type="checkbox" class="mt-0.5 size-[24px] shrink-0" bind:checked={sure} />
        <span class="text-(--stop)">I want this although {changes.value.doubts}.</span>
      </label>
    {/if}
    <button
      class="main-button mt-3 touch"
      disabled={busy || !changes.value.tables.length || (changes.value.doubts !== '' && !sure)}
      onclick={() => looking && void restore(looking)}>Put it back</button
    >
  {:else if !changes.trouble}
    <p class="dim">Comparing …</p>
  {/if}
</Dialog>
