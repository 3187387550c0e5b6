<!-- A job in the list: its promise, what it is, what is next, and the button for that; the rest in its menu. -->
<script lang="ts">
  import Ellipsis from '@lucide/svelte/icons/ellipsis';
  import type { JobSummary } from '../../api/client';
  import { choices } from '../../api/catalogue.svelte';
  import { navigate, p } from '../../app/router';
  import ActionMenu, { type Group } from '../../ui/ActionMenu.svelte';
  import Pill from '../../ui/Pill.svelte';
  import { promiseOf } from '../../charts/board';
  import { dueSaid, promiseSaid } from '../../units/due';
  import { shown } from '../../units/shown.svelte';
  import { capital, counted, duration, inSentence } from '../../units/units';
  import type { JobList } from './list.svelte';
  import { BUTTONS, nextSaid } from './next';

  interface Props {
    job: JobSummary;
    list: JobList;
    /** Several are being chosen. */
    selecting: boolean;
    marked: boolean;
    onmark: (on: boolean) => void;
  }
  let { job, list, selecting, marked, onmark }: Props = $props();
  /** A job that cannot be planned has no picture, and room is kept for one. */
  let pictured = $state(false);
  const id = $derived(String(job.id));
  const status = $derived(choices.all?.states.find((one) => one.id === job.kept_state)?.label ?? '');
  const scheduled = $derived(list.board?.board.jobs?.find((one) => one.id === id));
  const promise = $derived(scheduled ? promiseOf(scheduled) : null);
  const pill = $derived<{ said: string; kind: 'good' | 'late' | 'done' | '' }>(
    job.state === 'unreadable'
      ? { said: 'Cannot be read', kind: 'late' }
      : job.next === 'fix'
        ? { said: 'Needs fixing', kind: 'late' }
        : job.next === 'decide'
          ? { said: 'Not possible', kind: 'late' }
          : promise
            ? { said: promiseSaid(promise), kind: promise.kind }
            : { said: status, kind: 'done' },
  );
  const hands = $derived(job.hands_on_minutes === null ? '' : `${duration(job.hands_on_minutes)} hands-on`);
  const what = $derived(
    [
      `${job.pieces} × ${inSentence(job.material)}${job.finishes.length ? `, ${job.finishes.map((one) => inSentence(shown.tell(one))).join(', ')}` : ''}`,
      hands,
      job.customer,
    ]
      .filter(Boolean)
      .join(' · '),
  );
  const next = $derived.by(() => {
    if (job.reason) return shown.tell(job.reason);
    if (job.state === 'planning') return 'Working out the plan …';
    switch (job.next) {
      case 'quote':
        return 'Plan ready: quote it';
      case 'order':
        return 'Quoted: waits for the customer';
      case 'deliver':
        return 'Finished: hand it over';
      default:
        return (
          nextSaid(job, list.board) ??
          (job.next === 'bench' ? 'At the bench' : job.next === 'start' ? 'Ready to start' : '')
        );
    }
  });

  async function act() {
    const open = { params: { id } };
    if (job.next === 'start' || job.next === 'bench') await list.start(job);
    else if (job.next === 'order') await list.setState(job, 'ordered');
    else if (job.next === 'deliver') await list.setState(job, 'delivered');
    else if (job.next === 'quote') await navigate('/jobs/:id/quote', open);
    else await navigate('/jobs/:id', open);
  }

  const menu = $derived.by((): Group[] => [
    {
      title: 'Status',
      actions: (choices.all?.states ?? [])
        .filter((one) => one.id !== 'at-the-bench')
        .map((one) => ({
          id: one.id,
          label: one.label,
          current: one.id === job.kept_state,
          disabled: one.id === job.kept_state || job.state === 'unreadable',
          run: () => void list.setState(job, one.id as Parameters<JobList['setState']>[1]),
        })),
    },
    {
      title: 'Job',
      actions: [
        {
          id: 'card',
          label: 'Job card',
          disabled: job.state !== 'ready',
          run: () => void navigate('/jobs/:id/card', { params: { id } }),
        },
        {
          id: 'duplicate',
          label: 'Duplicate',
          disabled: job.state === 'unreadable',
          run: () => void list.duplicate(job),
        },
        { id: 'export', label: 'Export', href: `/api/jobs/${id}/file`, download: true },
        { id: 'delete', label: 'Delete', disabled: job.state === 'unreadable', run: () => void list.remove([job]) },
      ],
    },
  ]);
</script>

<li class="row" class:selecting data-job={job.id}>
  {#if selecting}
    <input
      type="checkbox"
      class="size-[24px]"
      checked={marked}
      aria-label="Select {job.title}"
      onchange={(event) => onmark(event.currentTarget.checked)}
    />
  {/if}
  <span class="due">
    <b class="num block">{job.due ? capital(dueSaid(job.due)) : 'No promise'}</b>
    <Pill said={pill.said} kind={pill.kind} />
  </span>
  <img
    src="/api/jobs/{job.id}/thumbnail?at={encodeURIComponent(job.updated_at)}"
    alt=""
    loading="lazy"
    width="58"
    height="40"
    class="thumb"
    class:invisible={!pictured}
    onload={() => (pictured = true)}
  />
  <span class="name min-w-0">
    {#if job.state === 'unreadable'}
      <b class="block text-[1.05rem]">{job.title}</b>
      <a class="small go underline" href="/api/jobs/{job.id}/file" download>Save it as it is</a>
    {:else}
      <a
        class="block min-h-[24px] text-[1.05rem] font-semibold hover:underline"
        href={p('/jobs/:id', { params: { id } })}>{job.title}</a
      >
      <span class="small dim block" title={counted(job.faces, 'face')}>{what}</span>
    {/if}
  </span>
  <span class="next" class:text-(--stop)={job.reason}>{next}</span>
  <span class="act">
    {#if job.next !== 'none'}<button class="plain-button w-full" onclick={() => void act()}>{BUTTONS[job.next]}</button
      >{/if}
  </span>
  <ActionMenu label="More for {job.title}" groups={menu} class="menu">
    {#snippet face()}<Ellipsis size={20} aria-hidden="true" />{/snippet}
  </ActionMenu>
</li>

<style>
  .row {
    display: grid;
    grid-template: auto / 10.5rem 58px minmax(0, 1.5fr) minmax(0, 1.2fr) 9.2rem 44px;
    align-items: center;
    gap: 0.3rem 1rem;
    padding: 0.6rem 0.9rem;
    border-bottom: 1px solid var(--line);
    overflow-wrap: anywhere;
  }
  .row:last-child {
    border-bottom: 0;
  }
  .row:hover {
    background: var(--raised);
  }
  .selecting {
    grid-template-columns: 24px 10.5rem 58px minmax(0, 1.5fr) minmax(0, 1.2fr) 9.2rem 44px;
  }
  .thumb {
    width: 58px;
    height: 40px;
    object-fit: cover;
    border-radius: 6px;
    border: 1px solid var(--line);
  }
  .row :global(.menu) {
    display: grid;
    place-items: center;
    width: 44px;
    height: 44px;
    border-radius: 8px;
    color: var(--dim);
    cursor: pointer;
  }
  .row :global(.menu:hover) {
    background: var(--paper);
    color: var(--ink);
  }
  @media (max-width: 63.99rem) {
    .row {
      grid-template: 'due name act menu' auto 'due next act menu' auto / 9.5rem minmax(0, 1fr) 9.2rem 44px;
    }
    .selecting {
      grid-template:
        'mark due name act menu' auto 'mark due next act menu' auto / 24px 9.5rem minmax(0, 1fr)
        9.2rem 44px;
    }
    .row > input {
      grid-area: mark;
    }
    .thumb {
      display: none;
    }
    .due {
      grid-area: due;
    }
    .name {
      grid-area: name;
    }
    .next {
      grid-area: next;
    }
    .act {
      grid-area: act;
    }
    .row :global(.menu) {
      grid-area: menu;
    }
  }
  @media (max-width: 47.99rem) {
    .row {
      grid-template: 'due act menu' auto 'name name name' auto 'next next next' auto / minmax(0, 1fr) 9rem 44px;
    }
    .selecting {
      grid-template:
        'mark due act menu' auto 'mark name name name' auto 'mark next next next' auto / 24px minmax(0, 1fr)
        9rem 44px;
    }
  }
</style>
