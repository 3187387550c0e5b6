<script lang="ts">
  import { currency } from '../../api/currency.svelte';
  import Download from '@lucide/svelte/icons/download';
  import Printer from '@lucide/svelte/icons/printer';
  import AccountBar from './AccountBar.svelte';
  import { shown } from '../../units/shown.svelte';
  import { duration } from '../../units/units';
  import type { JobDraft } from './draft.svelte';

  interface Props {
    draft: JobDraft;
    onorder: () => void;
    onquote: () => void;
    oncard: () => void;
    onbench: () => void;
  }
  let { draft, onorder, onquote, oncard, onbench }: Props = $props();
  const plan = $derived(draft.plan);
  const face = $derived(draft.facePlan);
  const cost = $derived(plan?.faces.reduce((sum, one) => sum + one.cost, 0) ?? 0);
  const changes = $derived(plan?.changes ?? 0);
  /** How many pieces the times are for, and in how many lots these are worked. */
  const batch = $derived.by(() => {
    if (!plan || plan.pieces === 1) return '';
    const lots = plan.lots ?? [];
    return `, ${plan.pieces} pieces${lots.length > 1 ? ` in ${lots.length} lots of ${lots.at(-1) === lots[0] ? '' : 'up to '}${lots[0]}` : ''}`;
  });
  const blocked = $derived(plan?.faces.filter((one) => !one.possible) ?? []);

  async function exportFile() {
    await draft.save();
    location.assign(`/api/jobs/${draft.id}/file`);
  }
</script>

<footer
  class="flex flex-wrap items-center gap-x-6 gap-y-2 px-4.5 py-3"
  class:stale={draft.stale}
  aria-busy={draft.stale}
  aria-label="Totals"
>
  {#if plan}
    {#if plan.account && plan.hands_on_minutes}
      <div class="basis-full"><AccountBar account={plan.account} /></div>
      <div>
        <b>{duration(plan.hands_on_minutes)}</b><span
          >hands-on{plan.hands_on_minutes_high
            ? `, allow up to ${duration(plan.hands_on_minutes_high)}`
            : ''}{batch}</span
        >
      </div>
      {#if plan.account.waiting}
        <div><b>{duration(plan.start_to_finish_minutes)}</b><span>start to finish</span></div>
      {/if}
    {/if}
    {#if face?.steps.length}<div>
        <b>{shown.say(Math.max(0, face.metal_um - face.above_um), 'depth')}</b><span>off {face.name}</span>
      </div>{/if}
    <div><b>{changes}</b><span>wheel {changes === 1 ? 'change' : 'changes'}</span></div>
    <div><b>{currency.money(cost)}</b><span>abrasives, each</span></div>
    {#if blocked.length}
      <div>
        <b class="!text-(--stop)">{blocked.length} not possible</b><span
          >{blocked.map((one) => one.name).join(', ')}</span
        >
      </div>
    {/if}
  {/if}
  <div class="ml-auto flex flex-wrap gap-2">
    <button class="plain-button" onclick={onorder}>Order <kbd>O</kbd></button>
    <button class="plain-button" disabled={!plan?.possible} onclick={onquote}>Quote <kbd>Q</kbd></button>
    <button class="plain-button" onclick={exportFile} aria-label="Job file" title="Job file"
      ><Download size={16} /></button
    >
    <button class="plain-button" onclick={oncard} aria-label="Job card"><Printer size={16} />Card <kbd>C</kbd></button>
    <button
      class="main-button"
      disabled={!plan?.possible || draft.leaving || draft.stale}
      aria-busy={draft.leaving}
      onclick={onbench}>{draft.leaving ? 'Going …' : 'To the bench'} <kbd>B</kbd></button
    >
  </div>
</footer>

<style>
  b {
    display: block;
    font-size: 1.2rem;
    font-weight: 650;
    line-height: 1.2;
    font-variant-numeric: tabular-nums;
  }
  span {
    font-size: 0.87rem;
    color: var(--dim);
  }
</style>
