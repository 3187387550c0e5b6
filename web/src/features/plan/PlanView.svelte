<script lang="ts">
  import { api } from '../../api/client';
  import { navigate, p, route } from '../../app/router';
  import { useKeys } from '../../ui/keys.svelte';
  import { notices } from '../../ui/notices.svelte';
  import { leaveUntouched, touched } from '../../api/untouched';
  import { toBench } from './bench';
  import { JobDraft } from './draft.svelte';
  import FaceList from './FaceList.svelte';
  import GoBackSheet from './GoBackSheet.svelte';
  import JobHead from './JobHead.svelte';
  import PlanPane from './PlanPane.svelte';
  import OrderSheet from './OrderSheet.svelte';
  import PartSheet from './PartSheet.svelte';
  import QuoteSheet from './QuoteSheet.svelte';
  import StepCard from './StepCard.svelte';
  import WeighSheet from './WeighSheet.svelte';
  import WhatIfSheet from './WhatIfSheet.svelte';
  import WhySheet from './WhySheet.svelte';
  import Totals from './Totals.svelte';

  let draft = $state.raw<JobDraft | null>(null);
  let trouble = $state<string | null>(null);
  let goingBack = $state(false);
  let asking = $state(false);
  let wondering = $state(false);
  let weighing = $state(false);
  let describing = $state(false);
  let ordering = $state(false);
  let quoting = $state(false);
  /** Said once: after a reload the title is as typed, and a key must not write over it. */
  const fresh = location.hash === '#new';
  if (fresh) history.replaceState(history.state, '', location.pathname + location.search);

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
        notices.say(`“${mine.job.title}” is not kept yet: the last changes wait in this browser.`, 'trouble');
    };
  });

  function openPhoto() {
    if (!draft) return;
    touched(draft.id);
    void draft.save().then(() => navigate('/jobs/:id/photo', { params: { id: String(draft?.id) } }));
  }

  function openCard() {
    if (draft) touched(draft.id);
    if (draft) void draft.save().then(() => navigate('/jobs/:id/card', { params: { id: String(draft?.id) } }));
  }

  useKeys('This job', [
    { press: 'ArrowLeft', shown: '←', does: 'The step before', run: () => draft?.walk(-1) },
    { press: 'ArrowRight', shown: '→', does: 'The next step', run: () => draft?.walk(1) },
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
    { press: 'l', shown: 'L', does: 'Lock this step into the route', run: () => draft?.toggleLock() },
    { press: 'w', shown: 'W', does: 'Weigh: all routes, habits, the guess of depth', run: () => (weighing = true) },
    { press: 'e', shown: 'E', does: 'The part and the ways of working', run: () => (describing = true) },
    { press: 'c', shown: 'C', does: 'Job card', run: openCard },
    { press: 'o', shown: 'O', does: 'The order: customer, promise, own operations', run: () => (ordering = true) },
    { press: 'q', shown: 'Q', does: 'Quote', run: () => (quoting = true) },
    { press: 'p', shown: 'P', does: 'The part on a photo', run: openPhoto },
    { press: 'b', shown: 'B', does: 'To the bench', run: () => draft?.plan?.possible && void toBench(draft) },
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
    <p class="mt-2">{trouble}. <a class="underline" href={p('/')}>To the jobs</a></p>
  </div>
{:else if draft}
  <div class="flex flex-col lg:h-full lg:min-h-0">
    <JobHead
      {draft}
      {fresh}
      ondescribe={() => (describing = true)}
      onweigh={() => (weighing = true)}
      onphoto={() => draft && touched(draft.id)}
    />
    <div
      class="grid min-h-0 flex-1 gap-3.5 px-4.5 lg:grid-rows-[minmax(0,1fr)] md:grid-cols-[19.5rem_minmax(0,1fr)] lg:grid-cols-[19.5rem_minmax(0,1fr)_18.5rem]"
    >
      <FaceList {draft} />
      <PlanPane {draft} />
      <StepCard
        {draft}
        ongoback={() => (goingBack = true)}
        onwhy={() => (asking = true)}
        onswap={() => (wondering = true)}
      />
    </div>
    <Totals
      {draft}
      onorder={() => (ordering = true)}
      onquote={() => (quoting = true)}
      oncard={openCard}
      onbench={() => draft && void toBench(draft)}
    />
    <GoBackSheet {draft} bind:open={goingBack} />
    <WhySheet {draft} bind:open={asking} />
    <WhatIfSheet {draft} bind:open={wondering} />
    <WeighSheet {draft} bind:open={weighing} />
    <PartSheet {draft} bind:open={describing} />
    <OrderSheet {draft} bind:open={ordering} />
    <QuoteSheet {draft} bind:open={quoting} />
  </div>
{:else}
  <p class="dim p-6">Opening the job …</p>
{/if}
