<script lang="ts">
  import { api } from '../../api/client';
  import { navigate, p, route } from '../../app/router';
  import { useKeys } from '../../ui/keys.svelte';
  import Sheet from '../../ui/Sheet.svelte';
  import { notices } from '../../ui/notices.svelte';
  import { duration } from '../../units/units';
  import { leaveUntouched, touched } from '../../api/untouched';
  import { toBench } from './bench';
  import { JobDraft } from './draft.svelte';
  import BetterWay from './BetterWay.svelte';
  import FaceList from './FaceList.svelte';
  import JobHead from './JobHead.svelte';
  import PlanPane from './PlanPane.svelte';
  import { StepTiles } from './tiles.svelte';
  import Warnings from './Warnings.svelte';
  import type { Group } from '../../ui/ActionMenu.svelte';

  let draft = $state.raw<JobDraft | null>(null);
  let trouble = $state<string | null>(null);
  let goingBack = $state(false);
  let asking = $state(false);
  let wondering = $state(false);
  let weighing = $state(false);
  let describing = $state(false);
  let ordering = $state(false);
  let noting = $state(false);
  /** All faces side by side, instead of one. */
  let whole = $state(false);
  /** The step in hand is open, with everything that can be changed about it. */
  let adjusting = $state(false);
  const tiles = new StepTiles(() => draft);
  /** Said once: after a reload the title is as typed, and a key must not write over it. */
  const fresh = location.hash === '#new';
  if (fresh) history.replaceState(history.state, '', location.pathname + location.search);
  /** A new part is asked about first. */
  let isNew = $state(fresh);

  // The same page serves the next job too, when another is opened from the find sheet.
  $effect(() => {
    const id = Number(route.params.id);
    let mine: JobDraft | null = null;
    let left = false;
    draft = null;
    trouble = null;
    api.job(id).then(
      (kept) => {
        if (!left) draft = mine = new JobDraft(kept);
      },
      (problem: Error) => (trouble = problem.message),
    );
    return () => {
      left = true;
      const unkept = mine?.keeping.unkept;
      const edited = mine?.keeping.saving !== 'saved';
      mine?.leave();
      if (mine && !edited) void leaveUntouched(mine.id);
      if (mine && unkept)
        notices.say(`“${mine.job.title}” is not saved yet: the last changes wait in this browser.`, 'trouble');
    };
  });

  function openPhoto() {
    if (!draft) return;
    touched(draft.id);
    void draft.save().then(() => navigate('/jobs/:id/photo', { params: { id: String(draft?.id) } }));
  }

  function openQuote() {
    if (draft) touched(draft.id);
    if (draft) void draft.save().then(() => navigate('/jobs/:id/quote', { params: { id: String(draft?.id) } }));
  }

  function openCard() {
    if (draft) touched(draft.id);
    if (draft) void draft.save().then(() => navigate('/jobs/:id/card', { params: { id: String(draft?.id) } }));
  }

  function adjust(at: number) {
    if (!draft) return;
    draft.stepAt = at;
    adjusting = draft.step !== undefined;
  }

  const several = $derived((draft?.job.faces.filter((face) => !face.keep_off).length ?? 0) > 1);
  const side = $derived(whole && several);

  /** The questions are answered, or left: what they say is meant, changed or not. */
  function showPlan() {
    if (draft) touched(draft.id);
    isNew = false;
  }

  /** One face again, the one that was pressed. */
  function toFace(id: string) {
    whole = false;
    draft?.selectFaceBy(id);
  }

  function toStep(id: string, at: number) {
    toFace(id);
    adjust(at);
  }

  function walk(by: number) {
    if (adjusting) draft?.walk(by);
    else adjust(draft?.stepAt ?? 0);
  }

  async function exportFile() {
    await draft?.save();
    location.assign(`/api/jobs/${draft?.id}/file`);
  }

  /** Everything that is not the next thing to do, in one place. */
  const options = $derived.by((): Group[] => {
    if (!draft) return [];
    const job = draft;
    return [
      {
        title: 'Plan',
        actions: [
          { id: 'adjust', label: adjusting ? 'Close the step' : 'Adjust steps', run: () => (adjusting = !adjusting) },
          ...(several
            ? [{ id: 'whole', label: whole ? 'One face' : 'Whole part', shown: 'V', run: () => (whole = !whole) }]
            : []),
          { id: 'compare', label: 'Compare ways', shown: 'W', run: () => (weighing = true) },
          {
            id: 'any-tool',
            label: job.fromRack ? 'Plan with any tool' : 'Plan from your own rack',
            disabled: !job.hasRack,
            run: () => job.planFrom(job.fromRack ? 'catalogue' : 'own'),
          },
          { id: 'notes', label: 'Notes on this plan', shown: 'I', run: () => (noting = true) },
          { id: 'undo', label: 'Undo', shown: 'Ctrl Z', disabled: !job.canUndo, run: () => job.undo() },
          { id: 'redo', label: 'Redo', shown: 'Ctrl Shift Z', disabled: !job.canRedo, run: () => job.redo() },
        ],
      },
      {
        title: 'Part',
        actions: [
          { id: 'face', label: 'Add a face', shown: 'N', run: () => job.addFace() },
          { id: 'edge', label: 'Add an edge', run: () => job.addEdge() },
          { id: 'photo', label: 'Photo of the part', shown: 'P', run: openPhoto },
          { id: 'part', label: 'The part and how to work', shown: 'E', run: () => (describing = true) },
        ],
      },
      {
        title: 'Job',
        actions: [
          { id: 'order', label: 'Customer and promise', shown: 'O', run: () => (ordering = true) },
          { id: 'quote', label: 'Quote', shown: 'Q', disabled: !job.plan?.possible, run: openQuote },
          { id: 'card', label: 'Job card', shown: 'C', run: openCard },
          { id: 'file', label: 'Job file', run: () => void exportFile() },
        ],
      },
    ];
  });

  useKeys('This job', [
    { press: 'v', shown: 'V', does: 'The whole part, or one face', run: () => (whole = several && !whole) },
    { press: 'ArrowLeft', shown: '←', does: 'The step before', run: () => walk(-1) },
    { press: 'ArrowRight', shown: '→', does: 'The next step', run: () => walk(1) },
    { press: 'Escape', shown: 'Esc', does: 'Close the step', run: () => (adjusting = false) },
    {
      press: 'a',
      shown: 'A',
      does: 'The next of the ways to do it',
      run: () => draft?.nextWay(),
    },
    {
      press: 'g',
      shown: 'G',
      does: 'A mark is still there: go back',
      run: () => (goingBack = draft?.step !== undefined),
    },
    { press: 'y', shown: 'Y', does: 'Why: the sums behind this step', run: () => (asking = draft?.step !== undefined) },
    {
      press: 's',
      shown: 'S',
      does: 'Swap this step, leave it out, or start otherwise',
      run: () => (wondering = draft?.step !== undefined),
    },
    { press: 'l', shown: 'L', does: 'Lock this step', run: () => draft?.toggleLock() },
    { press: 'w', shown: 'W', does: 'Compare ways', run: () => (weighing = true) },
    { press: 'i', shown: 'I', does: 'Notes on this plan', run: () => (noting = true) },
    { press: 'e', shown: 'E', does: 'The part and the ways of working', run: () => (describing = true) },
    { press: 'c', shown: 'C', does: 'Job card', run: openCard },
    { press: 'o', shown: 'O', does: 'Customer, promise, own operations', run: () => (ordering = true) },
    { press: 'q', shown: 'Q', does: 'Quote', run: openQuote },
    { press: 'p', shown: 'P', does: 'The part on a photo', run: openPhoto },
    { press: 'b', shown: 'B', does: 'Start at the bench', run: () => draft?.plan?.possible && void toBench(draft) },
    { press: '$mod+z', shown: 'Ctrl Z', does: 'Undo', run: () => draft?.undo() },
    { press: '$mod+Shift+z', shown: 'Ctrl Shift Z', does: 'Redo', run: () => draft?.redo() },
    { press: 'n', shown: 'N', does: 'New face', run: () => draft?.addFace() },
  ]);
</script>

<svelte:head><title>{draft?.job.title ?? 'Job'} – Kelbrast</title></svelte:head>
<svelte:window
  onbeforeunload={(event) => {
    if (draft?.keeping.unkept) event.preventDefault();
    void draft?.keeping.save(true);
  }}
/>

{#if trouble}
  <div class="m-auto text-center" role="alert">
    <h1>This job cannot be opened</h1>
    <p class="mt-2">{trouble}. <a class="underline" href={p('/jobs')}>To the jobs</a></p>
  </div>
{:else if draft}
  <div class="flex flex-1 flex-col md:min-h-0">
    <JobHead
      {draft}
      {fresh}
      {options}
      asking={isNew}
      whole={several ? whole : null}
      onwhole={(now) => (whole = now)}
      onorder={() => (ordering = true)}
      onstart={() => draft && void toBench(draft)}
    />
    {#if isNew}
      {#await import('./NewPart.svelte') then { default: NewPart }}
        <NewPart {draft} onphoto={openPhoto} ondone={showPlan} />
      {/await}
    {:else if side}
      <div class="flex flex-1 flex-col gap-3 px-3 pb-3.5 md:min-h-0 md:px-4.5">
        <Warnings {draft} jobOnly />
        {#await import('./WholePart.svelte') then { default: WholePart }}
          <WholePart {draft} onface={toFace} onstep={toStep} />
        {/await}
      </div>
    {:else}
      <div class="columns flex-1 gap-3 px-3 pb-3.5 md:gap-3.5 md:px-4.5" class:adjusting>
        <div class="side">
          <FaceList {draft} />
          <Warnings {draft} />
          <BetterWay {draft} oncompare={() => (weighing = true)} />
        </div>
        <PlanPane {draft} {tiles} {adjusting} onstep={adjust} />
        {#if adjusting}
          {#await import('./StepCard.svelte') then { default: StepCard }}
            <StepCard
              {draft}
              {tiles}
              onclose={() => (adjusting = false)}
              ongoback={() => (goingBack = true)}
              onwhy={() => (asking = true)}
              onswap={() => (wondering = true)}
            />
          {/await}
        {/if}
      </div>
    {/if}
    <!-- On a phone: where a thumb reaches, whatever was scrolled. -->
    <footer
      class="sticky bottom-0 z-10 flex items-center gap-3 border-t border-(--line) bg-(--card) px-4 py-2 md:hidden"
      class:hidden={isNew}
    >
      <span class="min-w-0 flex-1"
        ><b class="block">{draft.plan?.hands_on_minutes ? `${duration(draft.plan.hands_on_minutes)} hands-on` : ''}</b
        ></span
      >
      <button
        class="main-button touch"
        disabled={!draft.plan?.possible || draft.leaving || draft.stale}
        onclick={() => draft && void toBench(draft)}>{draft.leaving ? 'Going …' : 'Start'}</button
      >
    </footer>
    <Sheet load={() => import('./GoBackSheet.svelte')} props={{ draft }} bind:open={goingBack} />
    <Sheet load={() => import('./WhySheet.svelte')} props={{ draft }} bind:open={asking} />
    <Sheet load={() => import('./WhatIfSheet.svelte')} props={{ draft }} bind:open={wondering} />
    <Sheet load={() => import('./WeighSheet.svelte')} props={{ draft }} bind:open={weighing} />
    <Sheet load={() => import('./PartSheet.svelte')} props={{ draft }} bind:open={describing} />
    <Sheet load={() => import('./OrderSheet.svelte')} props={{ draft }} bind:open={ordering} />
    <Sheet load={() => import('./NotesSheet.svelte')} props={{ draft }} bind:open={noting} />
  </div>
{:else}
  <p class="dim p-6">Opening the job …</p>
{/if}

<style>
  .columns {
    display: flex;
    flex-direction: column;
  }
  @media (max-width: 47.99rem) {
    /* On a phone: what must be known first, then what it takes, then how it is described. */
    .side {
      display: contents;
    }
    .side > :global(*),
    .columns > :global(*) {
      order: 2;
    }
    .side > :global(.warnings) {
      order: 0;
    }
    .columns > :global(.plan) {
      order: 1;
    }
  }
  @media (min-width: 48rem) {
    .columns {
      min-height: 0;
      display: grid;
      grid-template: minmax(0, 1fr) / 16.75rem minmax(0, 1fr);
    }
    .side {
      display: flex;
      flex-direction: column;
      gap: 0.65rem;
      overflow-y: auto;
    }
    .side > :global(*) {
      flex-shrink: 0;
    }
  }
  @media (min-width: 72rem) {
    .columns {
      grid-template-columns: 21.6rem minmax(0, 1fr);
    }
    .columns.adjusting {
      grid-template-columns: 19.5rem minmax(0, 1fr) 19rem;
    }
  }
  @media (min-width: 48rem) and (max-width: 71.99rem) {
    .columns.adjusting {
      grid-template-columns: minmax(0, 1fr) 19rem;
    }
    .columns.adjusting .side {
      display: none;
    }
  }
</style>
