<!-- The plan of the face in hand: the stair, and the same in figures. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import Stair from '../../charts/Stair.svelte';
  import type { StairStep } from '../../charts/stair';
  import { temperColour } from '../../charts/temper';
  import { shown } from '../../units/shown.svelte';
  import { duration } from '../../units/units';
  import type { JobDraft } from './draft.svelte';
  import Fallback from './Fallback.svelte';
  import LightStrip from './LightStrip.svelte';
  import Notes from './Notes.svelte';
  import OperationRows from './OperationRows.svelte';
  import Scrolling from '../../ui/Scrolling.svelte';

  let { draft }: { draft: JobDraft } = $props();
  const plan = $derived(draft.facePlan);
  /** What the gauge is to read after each step, where a size is wanted. */
  const stops = $derived(plan?.fit?.answer?.stop_sheet ?? []);
  const operations = $derived(draft.plan?.operations ?? []);
  const steps = $derived(
    (plan?.steps ?? []).map((step): StairStep => ({
      label: step.label,
      grainUm: step.grain_um,
      minutes: step.minutes,
      fromUm: step.from_um,
      likelyUm: step.likely_um,
      leavesUm: step.leaves_um,
      staysUm: step.stays_um,
      zone: step.zone?.spots.join(', ') ?? null,
      curve: step.curve,
    })),
  );
  const zoned = $derived(plan?.steps.some((step) => step.zone) ?? false);
  const finish = $derived(draft.face?.want.finish ? choices.finish(draft.face.want.finish) : undefined);
  const wantedLabel = $derived(`${finish?.label ?? 'wanted'} starts here`);
</script>

<section
  class="-m-1 flex min-h-0 min-w-0 flex-col gap-3 self-start p-1 lg:self-auto lg:overflow-y-auto"
  aria-label="Plan of {plan?.name ?? 'this face'}"
>
  <div
    class="panel relative h-96 shrink-0 overflow-hidden lg:h-auto lg:min-h-44 lg:shrink lg:flex-1"
    class:stale={draft.stale || draft.trouble !== null}
    aria-busy={draft.stale}
  >
    {#if draft.stale && !draft.silent}
      <p class="working small absolute top-2 left-1/2 z-10 -translate-x-1/2" role="status">Working it out anew …</p>
    {/if}
    {#if plan?.steps.length}
      <Stair
        {steps}
        {wantedLabel}
        wantedUm={plan.wanted_depth_um}
        wantedLowUm={plan.wanted_low_um}
        restUm={plan.rest_um ?? null}
        selected={draft.stepAt}
        onselect={(at) => (draft.stepAt = at)}
      />
    {:else if plan}
      <div class="grid h-full place-content-center justify-items-center gap-2 overflow-auto p-6 text-center">
        {#if plan.keep_off}
          <h2 class="text-lg">Keep off</h2>
          <p>Mask this face before anything else is done.</p>
        {:else if plan.edge?.wanted === 'sharp'}
          <h2 class="text-lg">Stays sharp</h2>
          <p>Let no wheel roll over it; a strip of tape shows where it is.</p>
        {:else if plan.possible}
          <h2 class="text-lg">Nothing to do</h2>
          <p>This face is as wanted already.</p>
        {:else}
          <h2 class="text-lg text-(--stop)">Not possible: {plan.binding}</h2>
          <p class="max-w-md">{shown.tell(plan.reason_said)}</p>
          {#if plan.fallback}
            <Fallback instead={plan.fallback} onwant={(want) => draft.changeFace({ want })} />
          {:else}
            <p class="small dim max-w-md">
              Change the limit, the wanted finish or the found depth, and the plan follows.
            </p>
          {/if}
        {/if}
      </div>
    {:else if !draft.trouble}
      <p class="dim grid h-full place-content-center p-6" role="status">Working out the plan …</p>
    {/if}
  </div>
  <LightStrip {draft} />
  <Notes {draft} />
  {#if plan?.steps.length}
    <Scrolling
      as="ol"
      label="Steps"
      class={['panel max-h-56 min-h-32', draft.stale && 'stale']}
      aria-busy={draft.stale}
    >
      <OperationRows operations={operations.filter((one) => one.when === 'before')} pieces={draft.job.pieces} />
      {#each plan.steps as step, at (at)}
        <li class="border-b border-(--line) last:border-0">
          <button
            class="grid w-full grid-cols-[1.4rem_minmax(0,1fr)_repeat(3,auto)] items-baseline gap-x-3 px-3 py-1.5 text-left"
            class:bg-(--raised)={at === draft.stepAt}
            aria-current={at === draft.stepAt ? 'step' : undefined}
            onclick={() => (draft.stepAt = at)}
          >
            <b class="num" style:color={temperColour(step.grain_um)}>{at + 1}</b>
            <span class="min-w-0" class:font-semibold={at === draft.stepAt}
              >{step.label}
              <span class="small dim"
                >{#if step.zone}{step.zone.spots.join(', ')}, {shown.say(
                    step.zone.area_cm2,
                    'area',
                  )}{:else if zoned}over everything{:else}{shown.say(step.grain_um, 'depth')} grain{/if}</span
              ></span
            >
            <span class="num small">{shown.bare(step.from_um, 'depth')} → {shown.say(step.leaves_um, 'depth')}</span>
            <span class="num small dim hidden lg:inline"
              >{#if stops[at]}read <b class="text-(--ink)">{shown.say(stops[at].read_mm, 'size', 6)}</b>{:else}takes {shown.say(
                  step.takes_um,
                  'depth',
                )}{/if}</span
            >
            <span class="num small w-16 text-right font-semibold">{duration(step.minutes)}</span>
          </button>
        </li>
      {/each}
      <OperationRows operations={operations.filter((one) => one.when !== 'before')} pieces={draft.job.pieces} />
    </Scrolling>
  {/if}
</section>
