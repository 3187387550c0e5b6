<!-- The ways to do the job that differ and that no other beats, with what each takes; the chosen one is the plan. -->
<script lang="ts">
  import { currency } from '../../api/currency.svelte';
  import { shown } from '../../units/shown.svelte';
  import { counted, duration } from '../../units/units';
  import type { JobDraft } from './draft.svelte';

  let { draft }: { draft: JobDraft } = $props();
  const name = $props.id();
  const ways = $derived(draft.choices?.ways ?? []); // one way is no choice
</script>

{#if ways.length > 1}
  <fieldset role="radiogroup" aria-label="Ways to do it">
    <table class="lines small w-full text-left">
      <thead>
        <tr>
          <th>Way</th><th class="text-right">Hands-on</th><th class="text-right">Repeats to expect</th><th
            class="text-right">Comes off</th
          ><th class="text-right">Abrasives each</th><th class="text-right">Changes</th>
        </tr>
      </thead>
      <tbody>
        {#each ways as way (`${way.aim} ${way.habit} ${way.handover}`)}
          <tr>
            <td>
              <label class="flex min-h-11 items-center gap-2">
                <input type="radio" {name} checked={draft.goes(way)} onchange={() => draft.take(way)} />
                <span
                  ><b>{way.label}</b>{#if way.by}, {way.by.toLowerCase()}{/if}</span
                >
              </label>
            </td>
            <td class="num text-right">{duration(way.hands_on_minutes)}</td>
            <td class="num text-right">{way.rework_minutes >= 1 ? duration(way.rework_minutes) : ''}</td>
            <td class="num text-right">{shown.say(way.metal_um, 'depth')}</td>
            <td class="num text-right">{currency.money(way.cost)}</td>
            <td class="text-right">{counted(way.changes, 'change')}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </fieldset>
{/if}
