<!-- What is good to know about the plan, for those who want to know it. -->
<script lang="ts">
  import { currency } from '../../api/currency.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import { notices } from '../../ui/notices.svelte';
  import { shown } from '../../units/shown.svelte';
  import { counted, duration } from '../../units/units';
  import type { JobDraft } from './draft.svelte';

  let { draft, open = $bindable() }: { draft: JobDraft; open: boolean } = $props();
  const plan = $derived(draft.facePlan);
  const rack = $derived(draft.fromRack ? draft.plan?.rack : null);
  const used = $derived(new Set(draft.plan?.gather.map((one) => one.tool)));
  const cost = $derived(draft.plan?.faces.reduce((sum, one) => sum + one.cost, 0) ?? 0);
  const varies = $derived(
    (draft.plan?.spread ?? [])
      .slice(0, 2)
      .map((one) => `${one.label} (${Math.round(100 * one.share)} %)`)
      .join(', then '),
  );
  const spared = $derived((plan?.all_alike_minutes ?? 0) - (plan?.minutes ?? 0));
  const shared = $derived(
    (draft.plan?.set_ups ?? [])
      .map((one) => ({ ...one, faces: [...new Set(one.steps.map((step) => step.face))] }))
      .filter((one) => one.faces.length > 1),
  );

  /** It cannot be taken back, so it is asked twice. */
  let sure = $state(false);

  async function worked() {
    if (!sure) {
      sure = true;
      return;
    }
    sure = false;
    try {
      notices.say(`${await draft.worked()} items on the rack changed`);
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }
</script>

<Dialog bind:open title="Notes on this plan">
  <div class="grid gap-2">
    {#if plan?.steps.length}
      <p>
        {shown.say(Math.max(0, plan.metal_um - plan.above_um), 'depth')} off {plan.name}{typeof plan.metal_elsewhere_um ===
        'number'
          ? ` at the spots, ${shown.say(plan.metal_elsewhere_um, 'depth')} elsewhere`
          : ''}; {counted(draft.plan?.changes ?? 0, 'wheel change')}; abrasives {currency.money(cost)} each.{spared > 1
          ? ` ${duration(spared)} less than working all of it.`
          : ''}
      </p>
    {/if}
    {#if (draft.plan?.order.length ?? 0) > 1}
      <p>Order of work: {draft.plan?.order.join(', then ')}.</p>
    {/if}
    {#if draft.plan?.together}
      <p>
        The faces are planned together: {duration(Math.max(0, draft.plan.together.saves_minutes))}
        {draft.plan.together.saves_changes > 0
          ? `and ${counted(draft.plan.together.saves_changes, 'wheel change')} `
          : ''}less than each face's own best{draft.plan.together.exact ? '' : '; a better choice may exist'}.
      </p>
    {/if}
    {#if shared.length}
      <ul>
        {#each shared as one (one.tool + one.steps.map((step) => `${step.face} ${step.step}`).join())}
          <li>Set up once for {one.faces.join(' and ')}: {one.label}, saves {duration(one.saved_minutes)}.</li>
        {/each}
      </ul>
    {/if}
    {#if varies && plan?.steps.length}<p>What the minutes vary by most: {varies}.</p>{/if}
    {#if plan?.rework_minutes || plan?.without_habit_minutes}
      <p>
        {#if plan.rework_minutes}Repeats to expect: {duration(plan.rework_minutes)} more.{/if}
        {#if plan.without_habit_minutes}
          With longer grit steps: {duration(plan.without_habit_minutes)}, and more repeats to expect.
        {/if}
      </p>
    {/if}
    {#if plan?.habit_note}<p>{plan.habit_note}</p>{/if}
    {#if rack?.refused.length}
      <div>
        <p>{rack.refused.length} on the rack may not be used on this metal:</p>
        <ul class="max-h-32 overflow-auto">
          {#each rack.refused as one (one.tool)}<li><b>{one.label}</b>: {one.reason}</li>{/each}
        </ul>
      </div>
    {/if}
    {#if rack && draft.plan?.faces.some((face) => face.steps.some((step) => step.commits && used.has(step.tool)))}
      <p>Some wheels of this plan are free: once used they are kept for this compound and metal for life.</p>
    {/if}
    {#if rack && draft.plan?.possible}
      <p>
        When it is done, its wheels are bound and what it used up is counted down.
        <button class="min-h-[24px] font-semibold underline" onclick={worked}
          >{sure ? 'Yes, it is done' : 'It is done'}</button
        >
      </p>
    {/if}
  </div>
</Dialog>
