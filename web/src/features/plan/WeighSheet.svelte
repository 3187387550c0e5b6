<!-- Everything to weigh on the face in hand: the bet on its depth, and every route that nothing beats. -->
<script lang="ts">
  import type { Advice, FrontRoute } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import { shown } from '../../units/shown.svelte';
  import { duration, whole } from '../../units/units';
  import type { JobDraft } from './draft.svelte';

  let { draft, open = $bindable() }: { draft: JobDraft; open: boolean } = $props();
  const answer = new Answer<Advice>();
  const advice = $derived(answer.value);
  const inHand = $derived(draft.facePlan?.steps.map((step) => step.tool).join() ?? '');
  const bet = $derived(advice?.bet);

  $effect(() => {
    if (open) answer.ask(draft.advice());
  });

  function take(route: FrontRoute) {
    draft.setWish({ route: route.tools });
    open = false;
  }

  function startWith(tool: string) {
    draft.setWish({ ...draft.wish, start: tool, route: [] });
    open = false;
  }
</script>

<Dialog bind:open wide title="To weigh: {draft.face?.name ?? ''}">
  {#if answer.trouble}<p class="text-(--stop)" role="alert">{answer.trouble}</p>{/if}
  {#if bet}
    <section class="mb-3 rounded-lg border border-(--line) bg-(--raised) p-3">
      <h2>The depth is a guess</h2>
      <p>
        <b>{bet.coarse_label}</b> at once: some <b class="num">{duration(bet.sure_minutes)}</b>.
        <b>{bet.fine_label}</b>
        on a patch of {shown.say(bet.patch_cm2, 'area')} first, and back if it does not clear: some
        <b class="num">{duration(bet.trying_minutes)}</b>, {duration(bet.trial_minutes)} of it on the patch.
      </p>
      <p class="mt-1">
        {bet.try_first
          ? 'Try the finer one on a patch first.'
          : 'Start with the coarser one: the trial costs more than it saves.'}
        The finer one is the right one about {Math.round(bet.clears * 10)} times in 10.
      </p>
      <div class="mt-2 flex gap-2">
        <button class="plain-button small" onclick={() => startWith(bet.coarse)}>Start with {bet.coarse_label}</button>
        <button class="plain-button small" onclick={() => startWith(bet.fine)}>Start with {bet.fine_label}</button>
      </div>
    </section>
  {/if}
  {#if advice?.front.length}
    <h2>
      {advice.front.length === 1 ? 'One route beats all others' : `${advice.front.length} routes that nothing beats`}
    </h2>
    <p class="small dim mb-1">
      No other is better in minutes, metal, cost and changes at once. {whole(advice.kept)} partial routes kept, {whole(
        advice.pruned,
      )} dropped.
    </p>
    <table class="small w-full">
      <thead>
        <tr class="dim text-left">
          <th>Minutes</th><th>Metal</th><th>Cost</th><th>Changes</th><th>Steps</th><th>Tools</th><th
            ><span class="sr-only">Take</span></th
          >
        </tr>
      </thead>
      <tbody>
        {#each advice.front as route (route.tools.join())}
          <tr class="border-t border-(--line)" class:font-semibold={route.tools.join() === inHand}>
            <td class="num">{duration(route.minutes)}</td>
            <td class="num">{shown.say(route.metal_um, 'depth')}</td>
            <td class="num">{route.cost.toFixed(2)}</td>
            <td class="num">{route.changes}</td>
            <td class="num">{route.tools.length}</td>
            <td>{route.labels.join(', ')}</td>
            <td class="text-right">
              {#if route.tools.join() === inHand}in hand{:else}
                <button class="underline" onclick={() => take(route)}
                  >Take<span class="sr-only"> the route of {duration(route.minutes)}</span></button
                >
              {/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  {:else if advice}
    <p>
      {draft.face?.keep_off
        ? 'Nothing may touch this face.'
        : 'No route reaches this finish; the plan says what stands in the way.'}
    </p>
  {:else if !answer.trouble}
    <p class="dim" role="status">Weighing every route …</p>
  {/if}
</Dialog>

<style>
  td,
  th {
    padding: 0.22rem 0.7rem 0.22rem 0;
    vertical-align: baseline;
    font-weight: inherit;
  }
  td.num {
    white-space: nowrap;
  }
</style>
