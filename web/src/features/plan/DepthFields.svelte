<!-- How deep: a guess with its worst case, or what one can tell by eye and fingernail. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import { rangeOf, withLikely, withWorst } from '../../api/depth';
  import Choice from '../../ui/Choice.svelte';
  import LogSlider from '../../ui/LogSlider.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { shown } from '../../units/shown.svelte';

  interface Props {
    depth: number | { likely: number; worst: number };
    /** What is wrong with a key below the depth, in words; the depth itself by an empty key. */
    faultsOf: (key: string) => string[];
    onchange: (depth: { likely: number; worst: number }) => void;
  }
  let { depth: given, faultsOf, onchange }: Props = $props();
  const depth = $derived(rangeOf(given));
  const feel = $derived(
    choices.all?.feels.find((one) => one.likely_um === depth.likely && one.worst_um === depth.worst),
  );

  const likely = (value: number) => onchange(withLikely(given, value));
  const worst = (value: number) => onchange(withWorst(given, value));
</script>

<div class="grid grid-cols-2 gap-2">
  <NumberField
    label="Likely depth"
    value={depth.likely}
    quantity="depth"
    faults={faultsOf(typeof given === 'number' ? '' : 'likely')}
    onchange={likely}
  />
  <NumberField label="At worst" value={depth.worst} quantity="depth" faults={faultsOf('worst')} onchange={worst} />
</div>
<LogSlider
  label="Likely depth"
  value={depth.likely}
  low={0.2}
  high={2000}
  say={(value) => shown.say(value, 'depth')}
  onchange={likely}
/>
<Choice
  label="Or by feel"
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
    if (told) onchange({ likely: told.likely_um, worst: told.worst_um });
  }}
/>
{#if feel}<p class="small dim">{feel.source}: {feel.source_kind}.</p>{/if}
