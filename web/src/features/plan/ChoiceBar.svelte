<!-- The ways to do the job that differ and that no other beats, side by side; the chosen one is the plan. -->
<script lang="ts">
  import { currency } from '../../api/currency.svelte';
  import type { Way } from '../../api/client';
  import { shown } from '../../units/shown.svelte';
  import { duration } from '../../units/units';
  import type { JobDraft } from './draft.svelte';

  let { draft, onweigh }: { draft: JobDraft; onweigh: () => void } = $props();
  const name = $props.id();
  const ways = $derived(draft.choices?.ways ?? []); // one way is no choice

  function said(way: Way): string {
    const changes = `${way.changes} ${way.changes === 1 ? 'change' : 'changes'}`;
    const again = way.rework_minutes >= 1 ? ` + ${duration(way.rework_minutes)} redone` : '';
    return `${duration(way.hands_on_minutes)} hands-on${again} · ${shown.say(way.metal_um, 'depth')} · abrasives ${currency.money(way.cost)} · ${changes}`;
  }
</script>

<div class="flex flex-wrap justify-end gap-2">
  {#if ways.length > 1}<fieldset
      class="panel flex min-h-12 min-w-64 flex-1 flex-wrap overflow-hidden"
      role="radiogroup"
      aria-label="Ways to do it"
    >
      {#each ways as way (`${way.aim} ${way.habit} ${way.handover}`)}
        <label class="way" class:on={draft.goes(way)}>
          <input class="sr-only" type="radio" {name} checked={draft.goes(way)} onchange={() => draft.take(way)} />
          <b>{way.label}</b>{#if way.by}<small>{way.by.toLowerCase()}</small>{/if}<small
            >{way.steps} {way.steps === 1 ? 'step' : 'steps'}</small
          >
          <span class="num">{said(way)}</span>
        </label>
      {/each}
    </fieldset>{/if}
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
