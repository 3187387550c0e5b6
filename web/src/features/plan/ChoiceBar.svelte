<!-- The same job by every aim, side by side; the chosen one is the plan. -->
<script lang="ts">
  import { currency } from '../../api/currency.svelte';
  import type { Choice, Job } from '../../api/client';
  import { shown } from '../../units/shown.svelte';
  import { duration } from '../../units/units';
  import type { JobDraft } from './draft.svelte';

  let { draft, onweigh }: { draft: JobDraft; onweigh: () => void } = $props();
  const name = $props.id();

  function said(choice: Choice): string {
    const changes = `${choice.changes} ${choice.changes === 1 ? 'change' : 'changes'}`;
    return `${duration(choice.minutes)} · ${shown.say(choice.metal_um, 'depth')} · cost ${currency.money(choice.cost)} · ${changes}`;
  }

  function choose(aim: Job['aim']) {
    draft.job.aim = aim;
    draft.changed();
  }
</script>

<div class="flex flex-wrap gap-2">
  <fieldset class="panel flex min-h-12 min-w-64 flex-1 flex-wrap overflow-hidden" role="radiogroup" aria-label="Aim">
    {#each draft.choices?.by_aim ?? [] as choice (choice.aim)}
      <label class="way" class:on={choice.aim === draft.job.aim}>
        <input
          class="sr-only"
          type="radio"
          {name}
          value={choice.aim}
          checked={choice.aim === draft.job.aim}
          onchange={() => choose(choice.aim)}
        />
        <b>{choice.label}</b>
        {#if choice.possible}<small>{choice.steps} {choice.steps === 1 ? 'step' : 'steps'}</small>{/if}
        <span class="num">
          {choice.possible ? said(choice) : 'not possible'}
        </span>
      </label>
    {/each}
  </fieldset>
  <button class="plain-button max-md:w-full" onclick={onweigh}>All routes <kbd class="dim">W</kbd></button>
</div>

<style>
  .way {
    flex: 1;
    padding: 6px 13px;
    border-left: 1px solid var(--line);
    min-width: min(12.5rem, 100%);
    cursor: pointer;
  }
  .way:first-of-type {
    border-left: 0;
  }
  .way.on {
    background: var(--bar);
    color: var(--on-bar);
  }
  .way:has(:focus-visible) {
    outline: 3px solid var(--t5);
    outline-offset: -3px;
  }
  b {
    font-size: 0.93rem;
    font-weight: 650;
  }
  small {
    margin-left: 0.4rem;
    font-size: 0.84rem;
  }
  span {
    display: block;
    font-size: 0.84rem;
  }
</style>
