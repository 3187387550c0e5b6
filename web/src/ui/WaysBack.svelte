<!-- The ways back from a mark that shows: over a patch, over the whole face, or accepting it. At the bench each has its button. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import { shown } from '../units/shown.svelte';
  import type { Sentence } from '../units/sentence';
  import { duration, figures } from '../units/units';

  type Way = 'patch' | 'whole' | 'accept';
  interface Route {
    possible: boolean;
    reason?: string | null;
    reason_said?: Sentence | null;
    minutes: number;
    area_cm2: number;
    metal_um: number;
    steps: { tool: string; label: string; minutes: number; zone?: { area_cm2: number } | null }[];
  }
  interface Back {
    depth_um: number;
    like: string;
    missed_step: number | null;
    deeper: boolean;
    extent: Way;
    patch: Route | null;
    whole: Route;
    accept: { shows: boolean; times_deeper: number };
  }
  interface Props {
    back: Back;
    /** What can be done about a way, at its right. */
    action?: Snippet<[Way]>;
  }
  let { back, action }: Props = $props();
</script>

{#snippet box(way: Way, title: string, plan: Route | null)}
  <section
    class="flex items-start gap-3 rounded-lg border border-(--line) bg-(--raised) p-3"
    class:!border-(--go)={back.extent === way}
  >
    <div class="flex-1">
      <h2 class="!text-[1em]">{title}{back.extent === way ? ', the quicker way' : ''}</h2>
      {#if plan === null}
        <p>
          {back.accept.shows
            ? `It will show: ${figures(back.accept.times_deeper)} times deeper than the finish allows, and polishing makes it plainer.`
            : 'It will not stand out in this finish.'}
        </p>
      {:else if plan.possible}
        <p class="num">
          {duration(plan.minutes)} on {shown.say(plan.steps[0]?.zone?.area_cm2 ?? plan.area_cm2, 'area')}, {shown.say(
            plan.metal_um,
            'depth',
          )} off
        </p>
        <ol class="list-decimal pl-5">
          {#each plan.steps as step, at (at)}<li>
              {step.label}{way === 'patch' && !step.zone ? ' over everything' : ''}, {duration(step.minutes)}
            </li>{/each}
        </ol>
      {:else}
        <p class="text-(--stop)">{shown.tell(plan.reason_said) || plan.reason}</p>
      {/if}
    </div>
    {#if plan?.possible ?? true}{@render action?.(way)}{/if}
  </section>
{/snippet}

<p>
  A mark of {shown.say(back.depth_um, 'depth')}, about as {back.like} leaves it.
  {#if back.missed_step}Step {back.missed_step} was left too early.
  {:else if back.deeper}It is deeper than the face was described: no step was left too early.{/if}
</p>
{#if back.patch}{@render box('patch', 'Where the mark is', back.patch)}{/if}
{@render box('whole', 'Over the whole face', back.whole)}
{@render box('accept', 'Accept it', null)}
