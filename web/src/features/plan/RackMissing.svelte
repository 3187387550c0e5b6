<!-- What the shop's own rack lacks for this plan, and how to go on. -->
<script lang="ts">
  import type { Plan } from '../../api/client';
  import { duration, figures } from '../../units/units';
  import type { JobDraft } from './draft.svelte';

  let { draft, check }: { draft: JobDraft; check: NonNullable<Plan['rack']> } = $props();
  const short = $derived(check.short.filter((one) => !(draft.job.extras ?? []).includes(one.tool)));

  function said(one: (typeof short)[number]): string {
    if (one.have <= 0) return one.label;
    return `${one.label} (${figures(one.need, 3)} needed, ${figures(one.have, 3)} in stock)`;
  }
</script>

{#if short.length}
  <p>
    <b>Missing: {short.map(said).join(', ')}</b>
    {#if check.without_minutes !== null}
      <button class="block min-h-[24px] font-semibold underline" onclick={() => draft.planWithout(check.without_tools)}
        >Plan without: {duration(check.without_minutes)}</button
      >
    {:else}
      <span class="dim block">No plan without it is worth having: it is needed.</span>
    {/if}
  </p>
{/if}
