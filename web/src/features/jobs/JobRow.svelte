<script lang="ts">
  import Copy from '@lucide/svelte/icons/copy';
  import Download from '@lucide/svelte/icons/download';
  import Trash from '@lucide/svelte/icons/trash-2';
  import type { JobSummary } from '../../api/client';
  import { choices } from '../../api/catalogue.svelte';
  import { p } from '../../app/router';
  import { shown } from '../../units/shown.svelte';
  import { duration } from '../../units/units';
  import type { JobList } from './list.svelte';

  interface Props {
    job: JobSummary;
    list: JobList;
    marked: boolean;
    onmark: (on: boolean) => void;
  }
  let { job, list, marked, onmark }: Props = $props();
  /** A job that cannot be planned has no picture, and room is kept for one. */
  let pictured = $state(false);
  const due = $derived(job.due ? new Date(job.due) : null);
  const STATES = {
    ready: '',
    'not-possible': 'Not possible',
    'cannot-plan': 'Needs mending',
    unreadable: 'This version cannot read it',
  } as const;
  const DAY = { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' } as const;
</script>

<tr class="hover:bg-(--raised)">
  <td class="!pr-0"
    ><input
      type="checkbox"
      class="size-[24px]"
      checked={marked}
      aria-label="Mark {job.title}"
      onchange={(event) => onmark(event.currentTarget.checked)}
    /></td
  >
  <td>
    <div class="flex items-start gap-2.5">
      <img
        src="/api/jobs/{job.id}/thumbnail?at={encodeURIComponent(job.updated_at)}"
        alt=""
        loading="lazy"
        width="60"
        height="42"
        class="thumb max-md:hidden"
        class:invisible={!pictured}
        onload={() => (pictured = true)}
      />
      <span class="min-w-0">
        {#if job.state === 'unreadable'}
          <span class="font-semibold">{job.title}</span>
          <a class="small go block underline" href="/api/jobs/{job.id}/file" download>Save it as it is</a>
        {:else}
          <a class="font-semibold hover:underline" href={p('/jobs/:id', { params: { id: String(job.id) } })}
            >{job.title}</a
          >
          <span class="small dim block"
            >{job.faces} {job.faces === 1 ? 'face' : 'faces'}{job.customer ? `, for ${job.customer}` : ''}</span
          >
        {/if}
      </span>
    </div>
  </td>
  <td class="max-lg:hidden">{job.material}</td>
  <td class="max-sm:hidden">{job.finishes.map((one) => shown.tell(one)).join(', ')}</td>
  <td class="num text-right max-sm:hidden">{job.pieces || ''}</td>
  <td class="num text-right">{job.hands_on_minutes === null ? '–' : duration(job.hands_on_minutes)}</td>
  <td class="num small max-lg:hidden whitespace-nowrap">{due ? due.toLocaleString(undefined, DAY) : ''}</td>
  <td>
    {#if job.state === 'ready'}
      <span class="font-semibold text-(--go)"
        >{job.kept_state === 'asked'
          ? 'Planned'
          : choices.all?.states.find((one) => one.id === job.kept_state)?.label}</span
      >
    {:else}
      <span class="font-semibold text-(--stop)">{STATES[job.state]}</span>
      <span class="small dim block max-w-64">{shown.tell(job.reason)}</span>
    {/if}
  </td>
  <td class="text-right sm:whitespace-nowrap">
    <a class="action" href="/api/jobs/{job.id}/file" download aria-label="Export {job.title}" title="Export"
      ><Download size={17} /></a
    >
    <button class="action" onclick={() => list.duplicate(job)} aria-label="Duplicate {job.title}" title="Duplicate"
      ><Copy size={17} /></button
    >
    <button class="action" onclick={() => list.remove(job)} aria-label="Delete {job.title}" title="Delete"
      ><Trash size={17} /></button
    >
  </td>
</tr>

<style>
  td {
    padding: 0.6rem clamp(0.3rem, 1.5vw, 0.9rem);
    border-bottom: 1px solid var(--line);
    vertical-align: top;
  }
  td:nth-child(2) {
    overflow-wrap: anywhere;
  }
  tr:last-child td {
    border-bottom: 0;
  }
  .thumb {
    width: 60px;
    height: 42px;
    object-fit: cover;
    border-radius: 6px;
    border: 1px solid var(--line);
  }
  .action {
    display: inline-grid;
    place-items: center;
    width: 32px;
    height: 32px;
    border-radius: 6px;
    color: var(--dim);
    cursor: pointer;
  }
  .action:hover {
    color: var(--ink);
    background: var(--paper);
  }
</style>
