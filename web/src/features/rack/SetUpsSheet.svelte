<!-- Set-ups for one job or several together: what to gather, and which wheel on which spindle in which order. -->
<script lang="ts">
  import { api, type JobPage, type Preparation } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import { whole } from '../../units/units';

  let { open = $bindable() }: { open: boolean } = $props();
  const jobs = new Answer<JobPage>();
  const answer = new Answer<Preparation>();
  let named = $state<number[]>([]);
  let words = $state('');

  $effect(() => {
    if (open) jobs.ask(api.jobs({ words }), true);
  });
  $effect(() => {
    if (open && named.length) answer.ask(api.setUps(named), true);
  });

  function toggle(id: number) {
    named = named.includes(id) ? named.filter((one) => one !== id) : [...named, id];
  }
</script>

<Dialog bind:open wide title="Set-ups">
  {#if words || (jobs.value && jobs.value.count > jobs.value.jobs.length)}
    <label class="mb-2 block">
      <span class="small dim block">Find a job</span>
      <input class="field" type="search" bind:value={words} autocomplete="off" />
    </label>
  {/if}
  <fieldset class="mb-3 flex flex-wrap gap-x-4 gap-y-1">
    <legend class="small dim">For these jobs together</legend>
    {#each jobs.value?.jobs ?? [] as job (job.id)}
      <label class="flex items-center gap-1.5">
        <input type="checkbox" checked={named.includes(job.id)} onchange={() => toggle(job.id)} />{job.title}
      </label>
    {/each}
  </fieldset>
  {#if answer.trouble ?? jobs.trouble}
    <p class="text-(--stop)" role="alert">{answer.trouble ?? jobs.trouble}</p>
  {/if}
  {#if named.length && answer.value}
    <p>
      <b>Gather:</b>
      {answer.value.gather
        .map((one) => `${one.label} (${one.count} ${one.unit}${one.count > 1 ? 's' : ''})`)
        .join(', ')}.
    </p>
    {#each answer.value.machines as machine (machine.machine)}
      <section class="mt-3">
        <h2>
          {machine.label}{machine.machine === 'hand'
            ? ''
            : `: ${machine.changes} ${machine.changes === 1 ? 'change' : 'changes'}`}
        </h2>
        {#each machine.notes as note (note)}<p class="small dim">{note}</p>{/each}
        <ol class="small">
          {#each machine.mounted as one, at (at)}
            <li
              class="grid grid-cols-[6.5rem_minmax(0,1.2fr)_7rem_minmax(0,1fr)] gap-x-3 border-t border-(--line) py-1"
            >
              <span class:font-semibold={one.mount}
                >{machine.machine === 'hand'
                  ? 'take'
                  : one.mount
                    ? machine.spindles > 1
                      ? `mount, spindle ${one.spindle}`
                      : 'mount'
                    : `on spindle ${one.spindle}`}</span
              >
              <span>{one.label}</span>
              <span class="num">{one.rpm === null ? '' : `${whole(one.rpm)} rev/min`}</span>
              <span class="dim">{one.faces.join('; ')}</span>
            </li>
          {/each}
        </ol>
      </section>
    {/each}
  {:else}
    <p class="dim">Tick the jobs that are to be worked.</p>
  {/if}
</Dialog>
