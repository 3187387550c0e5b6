<!-- A face that is worked to a size: the size, the gauge, and what it read where. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import { api, type Face } from '../../api/client';
  import NumberField from '../../ui/NumberField.svelte';
  import SizeWanted from '../../ui/SizeWanted.svelte';
  import { shown } from '../../units/shown.svelte';
  import type { JobDraft } from './draft.svelte';
  import { directions, heights, readingAt, withReading, type Fit } from './fit';

  let { draft, face, fit }: { draft: JobDraft; face: Face; fit: Fit } = $props();
  const kind = $derived(choices.all?.shapes.find((one) => one.id === face.shape?.kind)?.sized_as ?? 'shaft');
  const change = (next: Fit) => draft.changeFace({ fit: next });
  /** The first measuring: in the middle and near both ends. */
  const places = $derived(draft.facePlan?.fit?.places ?? []);
  const rows = $derived(heights(places));
  const turns = $derived(directions(places));
  const NAMES = ['Left', 'Middle', 'Right'];
  const answer = $derived(draft.facePlan?.fit?.answer);
</script>

<SizeWanted
  {kind}
  want={fit.want}
  read={api.drawnSize}
  faults={(field) => draft.faultsOf(`fit.want.${field}`)}
  onchange={(want) => change({ ...fit, want })}
/>
<NumberField
  label="Gauge repeats within"
  value={fit.gauge.repeatability_um}
  quantity="depth"
  faults={draft.faultsOf('fit.gauge')}
  onchange={(repeatability_um) => change({ ...fit, gauge: { ...fit.gauge, repeatability_um } })}
/>
<table class="readings w-full" aria-label="Readings before any work">
  <thead>
    <tr class="small dim"
      ><th scope="col">{shown.unit('length')}</th>{#each turns as phi (phi)}<th scope="col">{phi}°</th>{/each}</tr
    >
  </thead>
  <tbody>
    {#each rows as z, at (z)}
      <tr>
        <th scope="row" class="small dim text-left">{NAMES[at]}</th>
        {#each turns as phi (phi)}
          <td>
            <NumberField
              label="{NAMES[at]}, at {phi}°"
              hideLabel
              hideUnit
              lazy
              value={readingAt(fit, z, phi) ?? null}
              quantity="size"
              onchange={(mm) => change(withReading(fit, z, phi, mm))}
              onclear={() => change(withReading(fit, z, phi, null))}
            />
          </td>
        {/each}
      </tr>
    {/each}
  </tbody>
</table>
{#each draft.faultsOf('fit.readings') as fault (fault)}<p class="small text-(--stop)" role="alert">{fault}</p>{/each}
{#if answer}
  <p class="small dim">
    {shown.say(answer.left_um.near, 'depth', 3)} to the near limit, {shown.say(answer.left_um.far, 'depth', 3)} to the far
    one.
    {answer.can_be_had.all_round
      ? 'All of it can be clean within the limits.'
      : `Within the limits ${Math.round(100 * answer.can_be_had.cleaned_share)} % of it can be clean.`}
  </p>
  <ul class="small dim list-disc pl-4">
    {#each answer.form.cannot_tell as one (one)}<li>{one}</li>{/each}
  </ul>
{:else}
  <p class="small dim">Read it clean and cool, before any work: the plan then says what to read after each step.</p>
{/if}

<style>
  .readings td {
    padding: 1px;
  }
  .readings :global(.field) {
    padding-inline: 3px;
    font-size: 0.8rem;
  }
</style>
