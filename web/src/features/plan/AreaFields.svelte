<!-- The area: typed, or worked out from a shape that can be measured. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import type { Face, Shape } from '../../api/client';
  import Choice from '../../ui/Choice.svelte';
  import Either from '../../ui/Either.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { shown } from '../../units/shown.svelte';
  import type { JobDraft } from './draft.svelte';

  type Measure = Exclude<keyof Shape, 'kind'>;
  const WORDS: Record<Measure, string> = {
    length_mm: 'Length',
    width_mm: 'Width',
    diameter_mm: 'Diameter',
    inside_diameter_mm: 'Inside diameter',
    height_mm: 'Height',
  };
  /** Sizes to begin with, so that the area is never missing while a shape is being described. */
  const START: Record<Measure, number> = {
    length_mm: 100,
    width_mm: 50,
    diameter_mm: 60,
    inside_diameter_mm: 40,
    height_mm: 15,
  };

  let { draft, face }: { draft: JobDraft; face: Face } = $props();
  const needs = $derived(
    (choices.all?.shapes.find((shape) => shape.id === face.shape?.kind)?.needs ?? []) as Measure[],
  );

  function byShape(kind: Shape['kind']) {
    const measures = (choices.all?.shapes.find((shape) => shape.id === kind)?.needs ?? []) as Measure[];
    const kept = Object.fromEntries(measures.map((name) => [name, face.shape?.[name] ?? START[name]]));
    draft.changeFace({ area_cm2: undefined, shape: { kind, ...kept } as Shape });
  }

  function byArea() {
    draft.changeFace({ shape: undefined, area_cm2: Number((draft.facePlan?.area_cm2 ?? 100).toPrecision(4)) });
  }
</script>

<div class="grid gap-1.5">
  <Either
    label="Size of the face"
    value={face.shape ? 'shape' : 'area'}
    options={[
      { id: 'area', label: 'Area' },
      { id: 'shape', label: 'From a shape' },
    ]}
    onchange={(way) => (way === 'area' ? byArea() : byShape('plate'))}
  />
  {#if face.shape}
    <Choice label="Shape" value={face.shape.kind} options={choices.all?.shapes ?? []} onchange={byShape} />
    <div class="grid grid-cols-2 gap-2">
      {#each needs as name (name)}
        <NumberField
          label={WORDS[name]}
          value={face.shape[name]}
          quantity="length"
          faults={draft.faultsOf(`shape.${name}`)}
          onchange={(value) => draft.changeFace({ shape: { ...face.shape, [name]: value } as Shape })}
        />
      {/each}
    </div>
    {#if draft.facePlan}<p class="small dim">Area {shown.say(draft.facePlan.area_cm2, 'area', 3)}</p>{/if}
  {:else}
    <NumberField
      label="Area"
      value={face.area_cm2}
      quantity="area"
      faults={draft.faultsOf('area_cm2')}
      onchange={(area_cm2) => draft.changeFace({ area_cm2 })}
    />
  {/if}
</div>
