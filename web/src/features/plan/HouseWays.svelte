<!-- The house ways that fit the face in hand, beside the computed route, with their own figures. -->
<script lang="ts">
  import { api, type HouseOffer } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import { shown } from '../../units/shown.svelte';
  import { duration } from '../../units/units';
  import type { JobDraft } from './draft.svelte';

  let { draft }: { draft: JobDraft } = $props();
  const answer = new Answer<HouseOffer[]>();
  const offers = $derived((answer.value ?? []).filter((one) => one.face_id === draft.face?.id));
  const taken = $derived(draft.wish?.route?.join());

  // Asked again a moment after every new plan, so that typing is never in its way.
  $effect(() => {
    if (!draft.plan) return;
    const job = $state.snapshot(draft.job) as typeof draft.job;
    const wait = setTimeout(() => answer.ask(api.houseOffers(job), true), 400);
    return () => clearTimeout(wait);
  });
</script>

{#each offers as one (one.id)}
  <p class="small flex flex-wrap items-baseline gap-x-3 px-3 py-1.5">
    <span class="flex-1"
      >House way <b>{one.name}</b>: {one.tools.join(', ')}. By your log {duration(one.log_minutes)} on the work (the model
      says
      {duration(one.cut_minutes)}), {duration(one.minutes)} in all, {shown.say(one.metal_um, 'depth')} off{one
        .marks_said.code !== 'marks.none'
        ? `, ${shown.tell(one.marks_said)} left`
        : ''}.</span
    >
    {#if taken === one.route.join()}
      <button class="font-semibold underline" onclick={() => draft.setWish(undefined)}>Back to the computed one</button>
    {:else}
      <button class="font-semibold underline" onclick={() => draft.setWish({ route: one.route })}>Take it</button>
    {/if}
  </p>
{/each}
