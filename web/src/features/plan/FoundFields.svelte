<!-- What is wrong with the face, and how deep: a guess with its worst case, or the grade that left it. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import type { Face, Found } from '../../api/client';
  import Choice from '../../ui/Choice.svelte';
  import Either from '../../ui/Either.svelte';
  import LogSlider from '../../ui/LogSlider.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { shown } from '../../units/shown.svelte';
  import { foundAs } from '../../api/damage';
  import type { JobDraft } from './draft.svelte';
  import DamageSheet from './DamageSheet.svelte';
  import MatchSheet from './MatchSheet.svelte';
  import MeasuredSheet from './MeasuredSheet.svelte';

  let { draft, face }: { draft: JobDraft; face: Face } = $props();
  let matching = $state(false);
  let measuring = $state(false);
  let naming = $state(false);
  const feel = $derived(
    choices.all?.feels.find((one) => one.likely_um === depth?.likely && one.worst_um === depth?.worst),
  );
  const found = $derived(face.found);
  const kind = $derived(choices.all?.found.find((one) => one.id === found.kind));
  const depth = $derived(
    typeof found.depth_um === 'number' ? { likely: found.depth_um, worst: found.depth_um } : found.depth_um,
  );
  const options = $derived(
    found.after && !choices.papers.some((one) => one.id === found.after)
      ? [...choices.papers, { id: found.after, label: found.after }]
      : choices.papers,
  );

  /** What belongs to one kind of damage only goes when the kind changes. */
  function chooseKind(kind: Found['kind']) {
    change({ kind, called: undefined, blend: undefined, share: undefined });
  }

  function change(change: Partial<Found>) {
    draft.changeFace({ found: { ...found, ...change } });
  }

  /** The worst cannot be less than the likely, so moving one past the other takes it along. */
  function likely(value: number) {
    change({ depth_um: { likely: value, worst: Math.max(value, depth?.worst ?? value) } });
  }

  function worst(value: number) {
    change({ depth_um: { likely: Math.min(value, depth?.likely ?? value), worst: value } });
  }
</script>

<div class="grid gap-1.5">
  <Choice
    label="Found"
    term={found.kind === 'waviness'
      ? 'ripple'
      : found.kind === 'nick'
        ? 'nick'
        : found.kind === 'lay'
          ? 'lay'
          : undefined}
    value={found.kind}
    options={choices.all?.found ?? []}
    onchange={chooseKind}
  />
  <Either
    label="How the depth is known"
    value={found.after ? 'after' : 'depth'}
    options={[
      { id: 'depth', label: 'By depth' },
      { id: 'after', label: 'As left by a grade' },
    ]}
    onchange={(way) =>
      way === 'after'
        ? change({ depth_um: undefined, after: 'P180' })
        : change({ after: undefined, depth_um: { likely: 20, worst: 30 } })}
  />
  <p class="small flex flex-wrap gap-x-3">
    <button class="font-semibold underline" onclick={() => (naming = true)}>Pick the damage from pictures</button>
    <button class="font-semibold underline" onclick={() => (matching = true)}>Identify the grit</button>
    <button class="font-semibold underline" onclick={() => (measuring = true)}>From a measured profile</button>
  </p>
  {#if found.after}
    <Choice label="Paper grade" value={found.after} {options} onchange={(after) => change({ after })} />
  {:else if depth}
    <div class="grid grid-cols-2 gap-2">
      <NumberField
        label="Likely depth"
        value={depth.likely}
        quantity="depth"
        faults={typeof found.depth_um === 'number'
          ? draft.faultsOf('found.depth_um')
          : draft.faultsOf('found.depth_um.likely')}
        onchange={likely}
      />
      <NumberField
        label="At worst"
        value={depth.worst}
        quantity="depth"
        faults={draft.faultsOf('found.depth_um.worst')}
        onchange={worst}
      />
    </div>
    <LogSlider
      label="Likely depth"
      value={depth.likely}
      low={0.2}
      high={2000}
      say={(value) => shown.say(value, 'depth')}
      onchange={likely}
    />
    {#if kind?.share}
      <NumberField
        label="It covers so much of the face, %"
        value={(found.share ?? kind.share) * 100}
        faults={draft.faultsOf('found.share')}
        onchange={(percent) => change({ share: Math.min(100, percent) / 100 })}
      />
    {/if}
    {#if kind?.counted}
      <NumberField
        label="How many"
        value={found.count}
        integer
        faults={draft.faultsOf('found.count')}
        onchange={(count) => change({ count })}
      />
      <Either
        label="How the nicks are taken out"
        value={found.blend === true ? 'blend' : found.blend === false ? 'lower' : 'quicker'}
        options={[
          { id: 'quicker', label: 'Quicker' },
          { id: 'blend', label: 'Blend' },
          { id: 'lower', label: 'Lower the face' },
        ]}
        onchange={(way) => change({ blend: way === 'quicker' ? undefined : way === 'blend' })}
      />
    {/if}
    <Choice
      label="Or by what one can tell"
      value={feel?.id ?? ''}
      options={[
        { id: '', label: 'By the depth above' },
        ...(choices.all?.feels ?? []).map((one) => ({
          id: one.id,
          label: `${one.label}: ${shown.bare(one.likely_um, 'depth')} to ${shown.say(one.worst_um, 'depth')}`,
        })),
      ]}
      onchange={(id) => {
        const told = choices.all?.feels.find((one) => one.id === id);
        if (told) change({ depth_um: { likely: told.likely_um, worst: told.worst_um } });
      }}
    />
    {#if feel}<p class="small dim">{feel.source}: {feel.source_kind}.</p>{/if}
  {/if}
</div>
<DamageSheet bind:open={naming} onchoose={(damage) => draft.changeFace({ found: foundAs(damage) })} />
<MatchSheet
  material={draft.job.material}
  bind:open={matching}
  onchoose={(after) => change({ depth_um: undefined, after })}
/>
<MeasuredSheet bind:open={measuring} onuse={(depth_um) => change({ after: undefined, depth_um })} />
