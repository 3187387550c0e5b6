<!-- The shop's own factors against the published figures, each with how sure it is, switched one by one or all together. -->
<script lang="ts">
  import { placeOfFactor } from '../../charts/factor';
  import CopyTable from '../../ui/CopyTable.svelte';
  import { choices } from '../../api/catalogue.svelte';
  import { api, type Learning } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import { notices } from '../../ui/notices.svelte';
  import { counted } from '../../units/units';

  const answer = new Answer<Learning>();
  const learning = $derived(answer.value);
  type One = Learning['learnt'][number];
  answer.ask(api.learning());

  async function turn(on: boolean, one?: One) {
    const which = one ? { carrier: one.carrier, family: one.family, quantity: one.quantity } : {};
    try {
      answer.value = await api.switchLearning({ on, ...which });
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }

  const said = (one: One) =>
    `published 1.00, yours ${one.factor.toFixed(2)} ± ${one.error.toFixed(2)} from ${[...(one.tried ? ['a trial piece'] : []), ...(one.runs || !one.tried ? [counted(one.runs, 'run')] : [])].join(' and ')}`;
</script>

{#if answer.trouble}<p class="text-(--stop)" role="alert">{answer.trouble}</p>{/if}
{#if learning}
  <label class="panel mb-3 flex items-center gap-3 px-4 py-3">
    <input type="checkbox" checked={learning.on} onchange={(event) => turn(event.currentTarget.checked)} />
    <span
      ><b>Plans use what was learnt</b><span class="small dim block"
        >A factor counts from three finished runs on, or from a trial piece. It is drawn to the published figure while
        there is little to go by, and one odd run does not swing it (Huber's estimate of the logarithms, shrunk to 1).</span
      ></span
    >
  </label>
  {#if learning.learnt.length === 0}
    <div class="panel p-10 text-center">
      <h2 class="text-xl">Nothing learnt yet</h2>
      <p class="mx-auto mt-2 max-w-md">
        Finished runs teach how quickly things go here: by the time that steps take, by sizes and coats measured around
        a step, by when discs are changed, and by a measured Ra.
      </p>
    </div>
  {:else}
    <table class="lines [--cell:0.5rem_0.9rem] panel w-full border-separate border-spacing-0 overflow-hidden">
      <thead class="small dim text-left"
        ><tr
          ><th>What</th><th>On</th><th class="w-64">Against the published figure</th><th>How sure</th><th>Used</th></tr
        ></thead
      >
      <tbody>
        {#each learning.learnt as one (`${one.carrier}.${one.family}.${one.quantity}`)}
          <tr class:dim={!one.used}>
            <td
              ><b class="font-semibold">{one.carrier_label}</b><span class="small dim block">{one.quantity_label}</span
              ></td
            >
            <td>{choices.familyLabel(one.family)}</td>
            <td>
              <svg viewBox="0 0 240 22" class="w-full" class:opacity-50={!one.used} aria-hidden="true">
                <line x1="0" x2="240" y1="11" y2="11" stroke="var(--line)" />
                <line x1="120" x2="120" y1="2" y2="20" stroke="var(--dim)" />
                <line
                  x1={placeOfFactor(Math.max(0.05, one.factor - 2 * one.error)) * 2.4}
                  x2={placeOfFactor(one.factor + 2 * one.error) * 2.4}
                  y1="11"
                  y2="11"
                  stroke="var(--t5)"
                  stroke-width="4"
                />
                <circle cx={placeOfFactor(one.factor) * 2.4} cy="11" r="6" fill="var(--t5)" />
              </svg>
            </td>
            <td class="num">{said(one)}</td>
            <td>
              {#if one.enough}
                <input
                  type="checkbox"
                  aria-label="Use {one.carrier_label}, {choices.familyLabel(one.family)}, {one.quantity_label}"
                  checked={one.used}
                  disabled={!learning.on}
                  onchange={(event) => turn(event.currentTarget.checked, one)}
                />
              {:else}<span class="small dim">too few runs</span>{/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
    <CopyTable />
  {/if}
{/if}
