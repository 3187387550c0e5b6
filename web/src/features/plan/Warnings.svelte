<!-- What must be said before anybody begins: what is missing, at its limit, left as found, or set by hand. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import { shown } from '../../units/shown.svelte';
  import type { JobDraft } from './draft.svelte';
  import HouseWays from './HouseWays.svelte';
  import RackMissing from './RackMissing.svelte';

  interface Props {
    draft: JobDraft;
    /** What holds for the job alone, where no face is in hand. */
    jobOnly?: boolean;
  }
  let { draft, jobOnly = false }: Props = $props();
  const plan = $derived(jobOnly ? undefined : draft.facePlan);
  const wish = $derived(jobOnly ? undefined : draft.wish);
  const label = (tool: string) => choices.all?.tools.find((one) => one.id === tool)?.label ?? tool;
  const wished = $derived.by(() => {
    if (!wish) return null;
    if (wish.route?.length) return 'You set these steps yourself.';
    const said = [
      wish.start ? `Starts with ${label(wish.start)}` : '',
      wish.lock?.length ? `locked: ${wish.lock.map(label).join(', ')}` : '',
      wish.leave_out?.length ? `without ${wish.leave_out.map(label).join(', ')}` : '',
    ].filter(Boolean);
    return `${said.join('; ')}.`;
  });
</script>

<section aria-label="Before you start" class="warnings grid gap-2.5 not-has-[p]:hidden">
  <div class="warning panel divide-y divide-(--line) empty:hidden not-has-[p]:hidden">
    {#if draft.plan?.blocked}<p role="alert">{draft.plan.blocked}</p>{/if}
    {#if draft.faults.length}
      <p role="alert">The plan waits until this is fixed: {draft.toMend.join('; ')}.</p>
    {:else if draft.trouble}
      <p role="alert">{draft.trouble}</p>
    {/if}
    {#each plan?.left ?? [] as left (left.id)}
      <p>
        Left as found: <b>{left.spots}</b>. Taking that out costs {shown.say(left.least_um, 'depth')}, and {shown.say(
          left.may_um,
          'depth',
        )} may come off. {left.may_um > 0
          ? `Fill it, accept it, or leave a dish of ${shown.say(left.dish_radius_mm, 'length')} radius with ${shown.say(left.dish_stays_um, 'depth')} of it still there.`
          : 'Fill it or accept it.'}
      </p>
    {/each}
    {#if plan?.end_note}<p>{shown.tell(plan.end_note)}</p>{/if}
    {#if plan?.marks_said}<p>At the end {shown.tell(plan.marks_said)} can be expected to be there still.</p>{/if}
    {#if draft.plan?.rack}<RackMissing {draft} check={draft.plan.rack} />{/if}
  </div>
  <div class="panel divide-y divide-(--line) not-has-[p]:hidden">
    {#if wished}
      <p class="flex items-baseline gap-3">
        <span class="flex-1" class:text-(--stop)={plan?.wish_note}>{plan?.wish_note ?? wished}</span>
        <button class="min-h-[24px] font-semibold underline" onclick={() => draft.setWish(undefined)}
          >Let the plan choose</button
        >
      </p>
    {/if}
    {#if !jobOnly}<HouseWays {draft} />{/if}
  </div>
</section>

<style>
  section :global(p) {
    padding: 0.6rem 0.95rem;
    font-size: 0.93rem;
  }
  .warning {
    border-left: 4px solid var(--stop);
  }
</style>
