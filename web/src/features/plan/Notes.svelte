<!-- What must be said about the plan of the face in hand, beside its steps. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import { shown } from '../../units/shown.svelte';
  import { counted, duration } from '../../units/units';
  import type { JobDraft } from './draft.svelte';
  import HouseWays from './HouseWays.svelte';
  import RackNotes from './RackNotes.svelte';
  import Scrolling from '../../ui/Scrolling.svelte';

  let { draft }: { draft: JobDraft } = $props();
  const plan = $derived(draft.facePlan);
  const wish = $derived(draft.wish);
  const label = (tool: string) => choices.all?.tools.find((one) => one.id === tool)?.label ?? tool;
  const wished = $derived.by(() => {
    if (!wish) return null;
    if (wish.route?.length) return 'This route is set by you, step by step.';
    const said = [
      wish.start ? `Starts with ${label(wish.start)}` : '',
      wish.lock?.length ? `locked: ${wish.lock.map(label).join(', ')}` : '',
      wish.leave_out?.length ? `without ${wish.leave_out.map(label).join(', ')}` : '',
    ].filter(Boolean);
    return `${said.join('; ')}.`;
  });
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
</script>

<Scrolling label="Notes on this plan" class="panel max-h-[8.2rem] shrink-0 divide-y divide-(--line) not-has-[*]:hidden">
  {#each plan?.left ?? [] as left (left.id)}
    <p class="small px-3 py-1.5 text-(--stop)">
      Left as found: <b>{left.spots}</b>. Taking that out costs {shown.say(left.least_um, 'depth')}, and {shown.say(
        left.may_um,
        'depth',
      )} may come off. {left.may_um > 0
        ? `Fill it, accept it, or leave a dish of ${shown.say(left.dish_radius_mm, 'length')} radius with ${shown.say(left.dish_stays_um, 'depth')} of it still there.`
        : 'Fill it or accept it.'}
    </p>
  {/each}
  {#each [plan?.end_note, plan?.limit_note].filter((one) => !!one) as note (note.code)}
    <p class="small px-3 py-1.5 text-(--stop)">{shown.tell(note)}</p>
  {/each}
  {#if draft.plan?.blocked}
    <p class="px-3 py-1.5 text-(--stop)" role="alert">{draft.plan.blocked}</p>
  {/if}
  {#if draft.faults.length}
    <p class="px-3 py-1.5 text-(--stop)" role="alert">
      The plan waits until this is mended: {draft.elsewhere.length
        ? draft.elsewhere.join('; ')
        : 'see the field that is marked'}.
    </p>
  {:else if draft.trouble}
    <p class="px-3 py-1.5 text-(--stop)" role="alert">{draft.trouble}</p>
  {/if}
  <HouseWays {draft} />
  {#if draft.plan?.rack}<RackNotes {draft} check={draft.plan.rack} />{/if}
  {#if wished}
    <p class="small flex items-baseline gap-3 px-3 py-1.5">
      <span class="flex-1" class:text-(--stop)={plan?.wish_note}>{plan?.wish_note ?? wished}</span>
      <button class="font-semibold underline" onclick={() => draft.setWish(undefined)}>Let the plan choose</button>
    </p>
  {/if}
  {#if draft.plan?.together}
    <p class="small px-3 py-1.5">
      The routes of the faces are chosen together: {duration(Math.max(0, draft.plan.together.saves_minutes))}
      {draft.plan.together.saves_changes > 0
        ? `and ${counted(draft.plan.together.saves_changes, 'wheel change')} `
        : ''}less than each face's own best{draft.plan.together.exact ? '' : '; a better choice may exist'}.
    </p>
  {/if}
  {#if varies && plan?.steps.length}<p class="small dim px-3 py-1.5">What the minutes vary by most: {varies}.</p>{/if}
  {#if plan?.marks_said}
    <p class="small px-3 py-1.5 text-(--stop)">
      At the end {shown.tell(plan.marks_said)} can be expected to be there still.
    </p>
  {/if}
  {#if plan && typeof plan.metal_elsewhere_um === 'number'}
    <p class="small px-3 py-1.5">
      Off at the spots: {shown.say(Math.max(0, plan.metal_um - plan.above_um), 'depth')}{plan.limit_um === null
        ? ''
        : ` of ${shown.say(plan.limit_um, 'depth')}`}; elsewhere {shown.say(plan.metal_elsewhere_um, 'depth')}.{spared >
      1
        ? ` ${duration(spared)} less than working all of it.`
        : ''}
    </p>
  {/if}
  {#if plan?.rework_minutes || plan?.without_habit_minutes}
    <p class="small dim px-3 py-1.5">
      {#if plan.rework_minutes}Repeats to expect: {duration(plan.rework_minutes)} more.{/if}
      {#if plan.without_habit_minutes}
        Without the habit: {duration(plan.without_habit_minutes)}, and more repeats to expect.
      {/if}
    </p>
  {/if}
  {#if plan?.habit_note}<p class="small px-3 py-1.5">{plan.habit_note}</p>{/if}
  {#if shared.length}
    <ul class="small px-3 py-1.5">
      {#each shared as one (one.tool + one.steps.map((step) => `${step.face} ${step.step}`).join())}
        <li>
          Set up once for {one.faces.join(' and ')}: {one.label}, saves {duration(one.saved_minutes)}.
        </li>
      {/each}
    </ul>
  {/if}
</Scrolling>
