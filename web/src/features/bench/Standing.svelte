<!-- While nothing is at the bench: what waits to be done, what is due for care, and what was last done. -->
<script lang="ts">
  import { api, type Due, type JobPage, type Log } from '../../api/client';
  import { p } from '../../app/router';
  import { Answer } from '../../ui/answer.svelte';
  import { duration } from '../../units/units';

  const SHOWN = 4;
  const jobs = new Answer<JobPage>();
  const due = new Answer<Due[]>();
  const log = new Answer<Log>();
  jobs.ask(api.jobs({ state: ['ordered'], by: 'due', limit: 20 }));
  due.ask(api.upkeep());
  log.ask(api.log({ status: 'finished' }, 0));
  const DAY = { weekday: 'short', day: 'numeric', month: 'short' } as const;
  const waiting = $derived((jobs.value?.jobs ?? []).filter((one) => one.state === 'ready'));
  const cares = $derived((due.value ?? []).filter((one) => one.now));
  const done = $derived(log.value?.lines ?? []);
</script>

<div class="mt-6 grid gap-5 sm:grid-cols-3">
  <section aria-label="Waiting">
    <h2 class="!text-xl">Waiting</h2>
    <ul class="mt-1 grid gap-1">
      {#each waiting.slice(0, SHOWN) as job (job.id)}
        <li>
          <a class="row" href={p('/jobs/:id', { params: { id: String(job.id) } })}>
            <b>{job.title}</b>
            <span class="dim"
              >{job.hands_on_minutes === null ? '' : duration(job.hands_on_minutes)}{job.due
                ? `, by ${new Date(job.due).toLocaleDateString(undefined, DAY)}`
                : ''}</span
            >
          </a>
        </li>
      {:else}
        <li class="dim">{jobs.value ? 'Nothing is ordered.' : '…'}</li>
      {/each}
    </ul>
  </section>
  <section aria-label="Maintenance due">
    <h2 class="!text-xl">Maintenance due</h2>
    <ul class="mt-1 grid gap-1">
      {#each cares.slice(0, SHOWN) as care (`${care.thing} ${care.care}`)}
        <li>
          <a class="row" href="/log?show=upkeep"><b>{care.thing_label}</b> <span class="dim">{care.label}</span></a>
        </li>
      {:else}
        <li class="dim">{due.value ? 'Nothing is due.' : '…'}</li>
      {/each}
    </ul>
  </section>
  <section aria-label="Last done">
    <h2 class="!text-xl">Last done</h2>
    <ul class="mt-1 grid gap-1">
      {#each done.slice(0, SHOWN) as run (run.id)}
        <li>
          <a class="row" href={p('/log/:id', { params: { id: String(run.id) } })}>
            <b>{run.title}</b>
            <span class="dim">{new Date(run.ended_at ?? run.began_at).toLocaleDateString(undefined, DAY)}</span>
          </a>
        </li>
      {:else}
        <li class="dim">{log.value ? 'Nothing yet.' : '…'}</li>
      {/each}
    </ul>
  </section>
</div>

<style>
  .row {
    display: flex;
    min-height: 44px;
    flex-direction: column;
    justify-content: center;
  }
  .row:hover b {
    text-decoration: underline;
  }
</style>
