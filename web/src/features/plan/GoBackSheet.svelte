<!-- A mark is still there at the light check: how deep, and then patch, whole face, or accepting it. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import type { FacePlan, GoBack } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import Choice from '../../ui/Choice.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import Either from '../../ui/Either.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { shown } from '../../units/shown.svelte';
  import { duration, figures } from '../../units/units';
  import type { JobDraft } from './draft.svelte';

  let { draft, open = $bindable() }: { draft: JobDraft; open: boolean } = $props();
  let way = $state<'depth' | 'like' | 'nail'>('depth');
  let depth = $state(5);
  let like = $state('P400');
  const answer = new Answer<GoBack>();
  const back = $derived(answer.value?.goback);

  $effect(() => {
    if (!open) return;
    answer.ask(
      draft.goBack(way === 'depth' ? { depth_um: depth } : way === 'like' ? { like } : { fingernail: true }),
      true,
    );
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
    <Either
      label="How deep is it"
      value={way}
      options={[
        { id: 'depth', label: 'By depth' },
        { id: 'like', label: 'Looks like a grade' },
        { id: 'nail', label: 'A fingernail catches' },
      ]}
      onchange={(next) => (way = next)}
    />
    {#if way === 'depth'}
      <NumberField label="Depth of the mark" value={depth} quantity="depth" onchange={(value) => (depth = value)} />
    {:else if way === 'like'}
      <Choice label="It looks as left by" value={like} options={choices.papers} onchange={(grade) => (like = grade)} />
    {/if}
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
