<!-- What came off, and what the square looks like now: whatever was measured before is measured again, the rest may be left out. -->
<script lang="ts">
  import Either from '../../ui/Either.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import PlacesRead from './PlacesRead.svelte';
  import type { TrialInHand } from './trial.svelte';

  let { trial }: { trial: TrialInHand } = $props();
  const file = $derived(trial.file);
  let places = $state<number[]>([]);
  const need = $derived(file?.measured?.before_mm.length ?? 0);

  function measured(after: number[]) {
    places = after;
    if (file?.measured && after.length === need) trial.change({ measured: { ...file.measured, after_mm: after } });
  }
</script>

{#if file && trial.set}
  <h1 class="!text-3xl">{trial.set.label}: what came off</h1>
  <div class="mt-4 grid gap-4 text-lg">
    {#if file.weighed}
      <div class="flex items-end gap-2">
        <div class="w-60">
          <NumberField
            label="Weight after, g (before: {file.weighed.before_g})"
            value={file.weighed.after_g}
            onchange={(after_g) => file.weighed && trial.change({ weighed: { ...file.weighed, after_g } })}
          />
        </div>
        <button
          class="plain-button touch"
          onclick={async () => {
            const before = file.weighed?.before_g ?? null;
            const after_g = await trial.read('balance', before);
            if (after_g !== null && before !== null) trial.change({ weighed: { before_g: before, after_g } });
          }}>From the balance</button
        >
      </div>
    {/if}
    {#if file.measured}
      <PlacesRead
        label="Thickness after, mm, at the same {need} places"
        values={places}
        onread={() => trial.read('micrometer', file.measured?.before_mm[places.length] ?? null)}
        onchange={measured}
      />
      {#if places.length !== need}<p class="dim">{places.length} of {need} places</p>{/if}
    {/if}
    <div class="grid items-end gap-3 sm:grid-cols-[15rem_1fr]">
      <NumberField
        label="Ra of the square now, if you know it"
        quantity="roughness"
        value={file.roughness?.ra_um}
        placeholder="not read"
        onchange={(ra_um) => trial.change({ roughness: { ra_um, by: file.roughness?.by ?? 'meter' } })}
        onclear={() => trial.change({ roughness: null })}
      />
      {#if file.roughness}
        <Either
          label="How it was found"
          value={file.roughness.by ?? 'meter'}
          options={[
            { id: 'meter', label: 'Read with a meter' },
            { id: 'compared', label: 'Compared with known grits' },
          ]}
          onchange={(by) => file.roughness && trial.change({ roughness: { ...file.roughness, by } })}
        />
      {/if}
    </div>
    {#if trial.trouble}<p class="text-(--stop)" role="alert">{trial.trouble}</p>{/if}
    <div class="flex flex-wrap gap-3">
      <button
        class="main-button min-h-16 text-xl"
        disabled={need > 0 && places.length !== need}
        onclick={() => void trial.conclude()}>What it says</button
      >
      <button class="plain-button min-h-16" onclick={() => trial.undo()}>Back to the clock</button>
      <button class="plain-button min-h-16" onclick={() => trial.forget()}>Leave this trial</button>
    </div>
  </div>
{/if}
