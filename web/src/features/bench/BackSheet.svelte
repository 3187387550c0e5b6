<!-- The light check failed: how deep, and then patch, whole face, or accept it. The run goes on along the new way. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import { api, type FacePlan, type GoBack, type Hand, type MarkDepth } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import MarkDepthFields from '../../ui/MarkDepth.svelte';
  import { shown } from '../../units/shown.svelte';
  import { duration, figures } from '../../units/units';
  import type { BenchRun } from './run.svelte';

  interface Props {
    bench: BenchRun;
    hand: Hand;
    open: boolean;
    onclose: () => void;
  }
  let { bench, hand, open, onclose }: Props = $props();
  let mark = $state.raw<MarkDepth>({ fingernail: true });
  const answer = new Answer<GoBack>();
  const back = $derived(answer.value?.goback);

  $effect(() => {
    if (open) answer.ask(api.waysBack(bench.run.id, mark), true);
  });

  async function go(extent: 'patch' | 'whole') {
    if (await bench.work('back', { ...mark, extent })) onclose();
  }

  async function accept() {
    if (await bench.work('accepted', mark)) onclose();
  }
</script>

{#snippet option(title: string, plan: FacePlan, extent: 'patch' | 'whole', quicker: boolean)}
  <section class="rounded-lg border border-(--line) bg-(--raised) p-3" class:!border-(--go)={quicker}>
    {#if plan.possible}
      <div class="flex items-start gap-3">
        <div class="flex-1">
          <h2 class="!text-lg">{title}{quicker ? ', the quicker way' : ''}</h2>
          <p class="num">
            {duration(plan.minutes)} on {shown.say(plan.area_cm2, 'area')}, {shown.say(plan.metal_um, 'depth')} off
          </p>
        </div>
        <button class="main-button min-h-14 !text-lg" disabled={!bench.ready} onclick={() => go(extent)}>Go back</button
        >
      </div>
      <ol class="mt-1 list-decimal pl-5">
        {#each plan.steps as step (step.tool)}<li>{step.label}, {duration(step.minutes)}</li>{/each}
      </ol>
    {:else}
      <h2 class="!text-lg">{title}</h2>
      <p class="text-(--stop)">{shown.text(plan.reason ?? '')}</p>
    {/if}
  </section>
{/snippet}

<Dialog bind:open={() => open, (now) => now || onclose()} title="A deep mark after step {hand.step}, {hand.face}" wide>
  <div class="grid gap-2.5 text-lg">
    <MarkDepthFields {mark} papers={choices.papers} onchange={(next) => (mark = next)} />
    {#if answer.trouble}<p class="text-(--stop)" role="alert">{answer.trouble}</p>{/if}
    {#if back}
      <p>
        A mark of {shown.say(back.depth_um, 'depth')}, about as {back.like} leaves it.
        {#if back.missed_step}Step {back.missed_step} was left too early.{/if}
      </p>
      {#if back.patch}{@render option('Over a patch', back.patch, 'patch', back.extent === 'patch')}{/if}
      {@render option('Over the whole face', back.whole, 'whole', back.extent === 'whole')}
      <section class="flex items-start gap-3 rounded-lg border border-(--line) bg-(--raised) p-3">
        <p class="flex-1">
          <b class="block">Accept it</b>
          {back.accept.shows
            ? `It will show: ${figures(back.accept.times_deeper)} times deeper than the finish allows, and polishing makes it plainer.`
            : 'It will not stand out in this finish.'}
        </p>
        <button class="plain-button min-h-14 !text-lg" disabled={!bench.ready} onclick={accept}>Accept it</button>
      </section>
    {/if}
  </div>
</Dialog>
