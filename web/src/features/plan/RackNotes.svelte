<!-- The plan against the shop's own rack: what is short, what is refused, and how to go on. -->
<script lang="ts">
  import { notices } from '../../ui/notices.svelte';
  import type { Plan } from '../../api/client';
  import { duration, figures } from '../../units/units';
  import type { JobDraft } from './draft.svelte';

  let { draft, check }: { draft: JobDraft; check: NonNullable<Plan['rack']> } = $props();
  const own = $derived(draft.fromRack);
  const used = $derived(new Set(draft.plan?.gather.map((one) => one.tool)));
  const extras = $derived(draft.job.extras ?? []);
  const short = $derived(check.short.filter((one) => !extras.includes(one.tool)));

  function said(one: (typeof short)[number]): string {
    if (one.have <= 0) return `${one.label} (not there)`;
    return `${one.label} (${figures(one.have, 3)} of ${one.need} ${one.unit}${one.need > 1 ? 's' : ''})`;
  }

  /** It cannot be taken back, so it is asked twice. */
  let sure = $state(false);

  async function worked() {
    if (!sure) {
      sure = true;
      return;
    }
    sure = false;
    try {
      notices.say(`${await draft.worked()} things on the rack changed`);
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }

  function without() {
    const tools = check.without_tools;
    for (const face of draft.job.faces) {
      const wish = face.wish;
      face.wish = {
        start: wish?.start && tools.includes(wish.start) ? undefined : wish?.start,
        lock: (wish?.lock ?? []).filter((tool) => !tools.includes(tool)),
        leave_out: [...new Set([...(wish?.leave_out ?? []), ...tools])],
        route: [],
      };
    }
    draft.changed();
  }
</script>

{#if short.length}
  <p class="small flex flex-wrap items-baseline gap-x-3 gap-y-1 px-3 py-1.5">
    <span class="flex-1">Missing on the rack: <b>{short.map(said).join(', ')}</b>.</span>
    {#if check.without_minutes !== null}
      <button class="font-semibold underline" onclick={without}
        >Plan without it, {duration(check.without_minutes)}</button
      >
    {:else}
      <span class="dim">No plan without it is worth having: it is needed.</span>
    {/if}
  </p>
{/if}
{#if own && check.refused.length}
  <details class="small px-3 py-1.5">
    <summary>{check.refused.length} on the rack may not be used on this metal</summary>
    <ul class="mt-1 max-h-32 overflow-auto">
      {#each check.refused as one (one.tool)}<li><b>{one.label}</b>: {one.reason}</li>{/each}
    </ul>
  </details>
{/if}
{#if own && draft.plan?.faces.some((face) => face.steps.some((step) => step.commits && used.has(step.tool)))}
  <p class="small px-3 py-1.5">
    Some wheels of this plan are free: once used they are kept for this compound and metal for life.
  </p>
{/if}
{#if own && draft.plan?.possible}
  <p class="small flex items-baseline gap-3 px-3 py-1.5">
    <span class="flex-1">When it is done, its wheels are bound and what it used up is counted down.</span>
    <button class="font-semibold underline" onclick={worked}>{sure ? 'Yes, it is done' : 'It is done'}</button>
  </p>
{/if}
