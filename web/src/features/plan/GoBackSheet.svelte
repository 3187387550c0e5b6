<!-- A mark is still there at the light check: how deep, and then patch, whole face, or accepting it. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import type { FacePlan, GoBack, MarkDepth } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import MarkDepthFields from '../../ui/MarkDepth.svelte';
  import { shown } from '../../units/shown.svelte';
  import { duration, figures } from '../../units/units';
  import type { JobDraft } from './draft.svelte';

  let { draft, open = $bindable() }: { draft: JobDraft; open: boolean } = $props();
  let mark = $state.raw<MarkDepth>({ depth_um: 5 });
  const answer = new Answer<GoBack>();
  const back = $derived(answer.value?.goback);

  $effect(() => {
    if (open) answer.ask(draft.goBack(mark), true);
  });
</script>

{#snippet option(title: string, plan: FacePlan, quicker: boolean)}
  <section class="rounded-lg border border-(--line) bg-(--raised) p-3" class:!border-(--go)={quicker}>
    <h2>{title}{quicker ? ', the quicker way' : ''}</h2>
    {#if plan.possible}
      <p class="num">
        {duration(plan.minutes)} on {shown.say(plan.area_cm2, 'area')}, {shown.say(plan.metal_um, 'depth')} off
      </p>
      <ol class="small list-decimal pl-5">
        {#each plan.steps as step (step.tool)}<li>{step.label}, {duration(step.minutes)}</li>{/each}
      </ol>
    {:else}
      <p class="text-(--stop)">{shown.text(plan.reason ?? '')}</p>
    {/if}
  </section>
{/snippet}

<Dialog bind:open title="A mark is still there after step {draft.stepAt + 1}">
  <div class="grid gap-2.5">
    <MarkDepthFields {mark} papers={choices.papers} onchange={(next) => (mark = next)} />
    {#if answer.trouble}<p class="text-(--stop)" role="alert">{answer.trouble}</p>{/if}
    {#if back}
      <p>
        A mark of {shown.say(back.depth_um, 'depth')}, about as {back.like} leaves it.
        {#if back.missed_step}Step {back.missed_step} was left too early.{/if}
      </p>
      {#if back.patch}{@render option('Over a patch', back.patch, back.extent === 'patch')}{/if}
      {@render option('Over the whole face', back.whole, back.extent === 'whole')}
      <section class="rounded-lg border border-(--line) bg-(--raised) p-3">
        <h2>Accept it</h2>
        <p>
          {#if back.accept.shows}
            It will show: {figures(back.accept.times_deeper)} times deeper than the finish allows, and polishing makes it
            plainer.
          {:else}
            It will not stand out in this finish.
          {/if}
        </p>
      </section>
    {/if}
  </div>
</Dialog>
