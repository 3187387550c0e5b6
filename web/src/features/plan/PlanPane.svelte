<!-- The plan of the face in hand: the stair, and its steps as a list. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import Stair from '../../charts/Stair.svelte';
  import { temperColour } from '../../charts/temper';
  import { shown } from '../../units/shown.svelte';
  import { duration } from '../../units/units';
  import AccountBar from './AccountBar.svelte';
  import type { JobDraft } from './draft.svelte';
  import Operations from './Operations.svelte';
  import { stairSteps } from './stairs';
  import type { StepTiles } from './tiles.svelte';
  import Unworked from './Unworked.svelte';

  interface Props {
    draft: JobDraft;
    tiles: StepTiles;
    /** The step in hand is open beside it. */
    adjusting: boolean;
    onstep: (at: number) => void;
  }
  let { draft, tiles, adjusting, onstep }: Props = $props();
  const plan = $derived(draft.facePlan);
  /** What the gauge is to read after each step, where a size is wanted. */
  const stops = $derived(plan?.fit?.answer?.stop_sheet ?? []);
  const operations = $derived(draft.plan?.operations ?? []);
  const of = (when: string) => operations.filter((one) => one.when === when);
  const steps = $derived(stairSteps(plan));
  const zoned = $derived(plan?.steps.some((step) => step.zone) ?? false);
  const finish = $derived(draft.face?.want.finish ? choices.finish(draft.face.want.finish) : undefined);
  const wantedLabel = $derived(`${finish?.label ?? 'wanted'} starts here`);
</script>

<section
  class="plan flex min-w-0 flex-col gap-3 md:min-h-0 md:gap-3.5 md:overflow-y-auto"
  aria-label="Plan of {plan?.name ?? 'this face'}"
>
  <div
    class="panel relative shrink-0 overflow-hidden md:h-auto md:min-h-76 md:flex-1 {plan && !plan.steps.length
      ? ''
      : 'h-66'}"
    class:stale={draft.stale || draft.trouble !== null}
    aria-busy={draft.stale}
  >
    {#if draft.stale && !draft.silent}
      <p class="working small absolute top-2 left-1/2 z-10 -translate-x-1/2" role="status">Planning …</p>
    {/if}
    {#if plan?.steps.length}
      <Stair
        {steps}
        {wantedLabel}
        wantedUm={plan.wanted_depth_um}
        wantedLowUm={plan.wanted_low_um}
        restUm={plan.rest_um ?? null}
        selected={adjusting ? draft.stepAt : -1}
        onselect={onstep}
      />
    {:else if plan}
      <Unworked {plan} onwant={(want) => draft.changeFace({ want })} />
    {:else if !draft.trouble}
      <p class="dim grid h-full place-content-center p-6" role="status">Planning …</p>
    {/if}
  </div>
  {#if plan?.steps.length}
    <div class="panel shrink-0" class:stale={draft.stale} aria-busy={draft.stale}>
      <ol aria-label="Steps">
        <Operations title="Before" operations={of('before')} pieces={draft.job.pieces} />
        {#each plan.steps as step, at (at)}
          {@const tile = tiles.after(at + 1)}
          <li class="border-b border-(--line) last:border-0">
            <button
              class="grid min-h-11 w-full grid-cols-[28px_minmax(0,1fr)_auto] items-center gap-x-3 px-3.5 py-1 text-left hover:bg-(--raised) sm:grid-cols-[28px_76px_minmax(0,1fr)_9rem_auto]"
              class:bg-(--raised)={adjusting && at === draft.stepAt}
              aria-current={adjusting && at === draft.stepAt ? 'step' : undefined}
              onclick={() => onstep(at)}
            >
              <b class="disc num" style:background={temperColour(step.grain_um)}>{at + 1}</b>
              <span class="tile max-sm:hidden">
                {#if tile}<img src="/api/light/{tile.key}.webp" alt="" loading="lazy" />{/if}
              </span>
              <span class="min-w-0"
                ><b class="font-semibold max-sm:block">{step.label}</b>
                <span class="dim max-sm:text-[0.93rem]"
                  >{#if step.zone}{step.zone.spots.join(', ')}, {shown.say(
                      step.zone.area_cm2,
                      'area',
                    )}{:else if zoned}over everything{/if}</span
                ></span
              >
              <span class="num dim text-right max-sm:hidden"
                >{#if stops[at]}read <b class="text-(--ink)">{shown.say(stops[at].read_mm, 'size', 6)}</b
                  >{:else}{shown.bare(step.from_um, 'depth')} → {shown.say(step.leaves_um, 'depth')}{/if}</span
              >
              <b class="num min-w-14 text-right font-semibold">{duration(step.minutes)}</b>
            </button>
          </li>
        {/each}
        <Operations title="Between" operations={of('between')} pieces={draft.job.pieces} />
        <Operations title="After" operations={of('after')} pieces={draft.job.pieces} />
      </ol>
      {#if draft.plan?.account}<div class="border-t border-(--line) px-3.5 py-2.5">
          <AccountBar account={draft.plan.account} />
        </div>{/if}
    </div>
  {/if}
</section>

<style>
  .disc {
    display: grid;
    place-items: center;
    width: 26px;
    height: 26px;
    border-radius: 999px;
    color: var(--card);
    font-weight: 700;
  }
  .tile {
    height: 32px;
    overflow: hidden;
    border-radius: 5px;
    border: 1px solid var(--line);
    background: var(--raised);
  }
  .tile img {
    width: 100%;
    height: 100%;
    object-fit: cover;
  }
</style>
