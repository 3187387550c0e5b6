<!-- What if: another tool for this step, none at all, or another start, each with what it costs. -->
<script lang="ts">
  import type { WhatIf } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import Either from '../../ui/Either.svelte';
  import { shown } from '../../units/shown.svelte';
  import { difference } from '../../units/units';
  import type { JobDraft } from './draft.svelte';

  const MOST = 14;
  let { draft, open = $bindable() }: { draft: JobDraft; open: boolean } = $props();
  const answer = new Answer<WhatIf[]>();
  const found = $derived(answer.value);
  let change = $state<'swap' | 'start'>('swap');
  let everything = $state(false);
  const leaveOut = $derived(found?.find((one) => one.change === 'leave-out'));
  const rows = $derived((found ?? []).filter((one) => one.change === change));
  const listed = $derived(everything ? rows : rows.slice(0, MOST));

  $effect(() => {
    if (!open) return;
    everything = false;
    change = 'swap';
    answer.ask(draft.whatIf());
  });

  function take(one: WhatIf) {
    draft.setWish(one.wish);
    open = false;
  }

  function more(one: WhatIf): string {
    const minutes = one.more_minutes;
    const metal = one.more_metal_um;
    const off = Math.abs(metal) < 0.5 ? 'same metal' : `${metal > 0 ? '+' : '−'}${shown.say(Math.abs(metal), 'depth')}`;
    return `${difference(minutes)}, ${off}`;
  }

  const left = (marks: WhatIf['marks_said']) => `${shown.tell(marks)} left`;
</script>

<Dialog bind:open wide title="What if: step {draft.stepAt + 1}, {draft.step?.label ?? ''}">
  {#if answer.trouble}<p class="text-(--stop)" role="alert">{answer.trouble}</p>{/if}
  {#if leaveOut}
    <section class="mb-3 rounded-lg border border-(--line) bg-(--raised) p-3">
      <h2>Leave it out</h2>
      <p class="num" class:text-(--stop)={leaveOut.marks_left >= 0.5}>{more(leaveOut)}, {left(leaveOut.marks_said)}</p>
      {#if leaveOut.hurried_said && leaveOut.hurried_said.code !== leaveOut.marks_said.code}
        <p class="small">With no more time for the next step than now: {left(leaveOut.hurried_said)}.</p>
      {/if}
      <button class="plain-button small mt-2" onclick={() => take(leaveOut)}>Leave it out</button>
    </section>
  {/if}
  {#if draft.stepAt === 0}
    <Either
      label="What to change"
      value={change}
      options={[
        { id: 'swap', label: 'Another tool, the rest as it is' },
        { id: 'start', label: 'Start with it, the rest anew' },
      ]}
      onchange={(next) => (change = next)}
    />
  {:else}
    <h2>Another tool, the rest as it is</h2>
  {/if}
  {#if found === null && !answer.trouble}<p class="dim mt-2" role="status">Trying every tool …</p>{/if}
  <ul class="mt-1">
    {#each listed as one (one.tool)}
      <li class="border-t border-(--line) first:border-0">
        <button class="flex w-full items-baseline gap-3 py-1.5 text-left hover:underline" onclick={() => take(one)}>
          <span class="flex-1">{one.label}</span>
          <span class="num small">{more(one)}</span>
          <span class="num small w-56 text-right" class:text-(--stop)={one.marks_left >= 0.5}
            >{left(one.marks_said)}</span
          >
        </button>
      </li>
    {:else}
      {#if found}<p class="dim mt-2">No other tool of this rack does this step.</p>{/if}
    {/each}
  </ul>
  {#if rows.length > listed.length}
    <button class="small underline" onclick={() => (everything = true)}>Show all {rows.length}</button>
  {/if}
</Dialog>
