<!-- Find anything: jobs by title or material, and what stands in the tables. -->
<script lang="ts">
  import { choices } from '../api/catalogue.svelte';
  import { api, type JobPage } from '../api/client';
  import { Answer } from '../ui/answer.svelte';
  import Dialog from '../ui/Dialog.svelte';
  import { navigate } from './router';

  interface Hit {
    id: string;
    what: string;
    where: string;
    go: () => void;
  }
  let { open = $bindable() }: { open: boolean } = $props();
  let asked = $state('');
  let at = $state(0);
  let input = $state<HTMLInputElement>();
  const list = new Answer<JobPage>();
  const jobs = $derived(list.trouble ? [] : (list.value?.jobs ?? null));
  /** Enter came before the jobs did: what is found first opens as soon as they are here. */
  let entered = $state(false);

  $effect(() => {
    if (!open) return;
    asked = '';
    at = 0;
    entered = false;
  });
  $effect(() => {
    if (open) return list.ask(api.jobs({ words: asked, limit: 12, within_ms: 0 }));
  });
  $effect(() => {
    if (jobs && entered && open) choose(hits[at]);
  });

  const hits = $derived.by((): Hit[] => {
    const words = asked.toLowerCase().split(/\s+/).filter(Boolean);
    const fits = (text: string) => words.every((word) => text.toLowerCase().includes(word));
    const found: Hit[] = (jobs ?? []).map((job) => ({
      id: `job${job.id}`,
      what: job.title,
      where: 'Job',
      go: () => void navigate('/jobs/:id', { params: { id: String(job.id) } }),
    }));
    const all = choices.all;
    if (words.length && all)
      for (const [tab, label, rows] of [
        ['materials', 'Material', all.materials],
        ['finishes', 'Finish', all.finishes],
        ['tools', 'Tool', all.tools],
        ['machines', 'Machine', all.machines],
      ] as const)
        for (const row of rows)
          if (fits(row.label))
            found.push({
              id: tab + row.id,
              what: row.label,
              where: label,
              go: () => void navigate(`/tables`, { search: { show: tab, find: row.label } }),
            });
    return found.slice(0, 12);
  });

  function choose(hit: Hit | undefined) {
    if (!hit) return;
    open = false;
    hit.go();
  }

  function onkeydown(event: KeyboardEvent) {
    const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (by) {
      event.preventDefault();
      at = Math.min(Math.max(at + by, 0), hits.length - 1);
    } else if (event.key === 'Enter') {
      if (jobs) choose(hits[at]);
      else entered = true;
    } else entered = false;
  }
</script>

<Dialog bind:open title="Find" focus={() => input ?? null}>
  <input
    class="field"
    placeholder="A job, a material, a finish, a tool"
    aria-label="What to find"
    bind:this={input}
    bind:value={asked}
    oninput={() => (at = 0)}
    {onkeydown}
  />
  <ul class="mt-2">
    {#each hits as hit, n (hit.id)}
      <li>
        <button
          class="flex w-full justify-between rounded-md px-2 py-1.5 text-left"
          class:bg-(--go-soft)={n === at}
          onclick={() => choose(hit)}
        >
          <span>{hit.what}</span><span class="small dim">{hit.where}</span>
        </button>
      </li>
    {:else}
      <li class="dim px-2 py-1.5">{jobs ? 'Nothing by that name.' : 'Looking…'}</li>
    {/each}
  </ul>
</Dialog>
