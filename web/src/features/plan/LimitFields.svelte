<!-- How much may come off: metal, a coat or layer with what must stay, a wall, a size. The strictest binds. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import type { Face } from '../../api/client';
  import Choice from '../../ui/Choice.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { shown } from '../../units/shown.svelte';
  import type { JobDraft } from './draft.svelte';
  import FitFields from './FitFields.svelte';
  import { startFit } from './fit';

  type Way = 'none' | 'limit' | 'coat' | 'wall' | 'size' | 'plated' | 'hardened' | 'fit';
  const WAYS: { id: Way; label: string }[] = [
    { id: 'none', label: 'No limit' },
    { id: 'limit', label: 'At most so much' },
    { id: 'coat', label: 'Within a coat' },
    { id: 'plated', label: 'Within the plating' },
    { id: 'hardened', label: 'Within the hardened layer' },
    { id: 'size', label: 'What the size tolerance leaves' },
    { id: 'wall', label: 'Down to a least wall' },
  ];
  const FIT: { id: Way; label: string } = { id: 'fit', label: 'Down to a size, by the gauge' };
  let { draft, face }: { draft: JobDraft; face: Face } = $props();
  const way = $derived<Way>(
    face.fit
      ? 'fit'
      : face.coat_um
        ? 'coat'
        : face.layer
          ? face.layer.kind
          : face.size_left_um
            ? 'size'
            : face.keep_wall_mm
              ? 'wall'
              : face.limit_um
                ? 'limit'
                : 'none',
  );
  const round = $derived(choices.all?.shapes.find((one) => one.id === face.shape?.kind)?.round ?? false);
  const limit = $derived(draft.facePlan?.limit_um);

  function choose(next: Way) {
    const clear: Partial<Face> = {
      limit_um: undefined,
      coat_um: undefined,
      keep_um: undefined,
      layer: undefined,
      size_left_um: undefined,
      keep_wall_mm: undefined,
      fit: undefined,
    };
    const starts: Record<Way, Partial<Face>> = {
      none: {},
      limit: { limit_um: 100 },
      coat: { coat_um: 45, keep_um: 30 },
      plated: { layer: { kind: 'plated', thickness_um: 25, keep_um: 10 } },
      hardened: { layer: { kind: 'hardened', thickness_um: 500, keep_um: 300 } },
      size: { size_left_um: 20 },
      fit: { fit: startFit(face, choices.all?.shapes ?? []) },
      wall: { thickness_mm: face.thickness_mm ?? 3, keep_wall_mm: (face.thickness_mm ?? 3) * 0.95 },
    };
    draft.changeFace({ ...clear, ...starts[next] });
  }
</script>

{#snippet pair(
  is: string,
  keys: [string, string],
  there: number | null | undefined,
  keep: number | null | undefined,
  set: (there: number, keep: number) => void,
)}
  <div class="grid grid-cols-2 gap-2">
    <NumberField
      label="{is} is"
      value={there}
      quantity="depth"
      faults={draft.faultsOf(keys[0])}
      onchange={(value) => set(value, keep ?? 0)}
    />
    <NumberField
      label="Must stay"
      value={keep}
      quantity="depth"
      faults={draft.faultsOf(keys[1])}
      onchange={(value) => set(there ?? 0, value)}
    />
  </div>
{/snippet}

<div class="grid gap-1.5">
  <Choice
    label="May come off"
    term="removal"
    value={way}
    options={startFit(face, choices.all?.shapes ?? []) ? [...WAYS, FIT] : WAYS}
    onchange={choose}
  />
  {#if way === 'limit'}
    <NumberField
      label="At most"
      value={face.limit_um}
      quantity="depth"
      faults={draft.faultsOf('limit_um')}
      onchange={(limit_um) => draft.changeFace({ limit_um })}
    />
  {:else if way === 'coat'}
    {@render pair('Coat', ['coat_um', 'keep_um'], face.coat_um, face.keep_um, (coat_um, keep_um) =>
      draft.changeFace({ coat_um, keep_um }),
    )}
  {:else if face.layer && (way === 'plated' || way === 'hardened')}
    {@render pair(
      'Layer',
      ['layer.thickness_um', 'layer.keep_um'],
      face.layer.thickness_um,
      face.layer.keep_um,
      (thickness_um, keep_um) => draft.changeFace({ layer: { kind: way, thickness_um, keep_um } }),
    )}
  {:else if way === 'size'}
    <NumberField
      label={round ? 'Left, over the diameter' : 'Left to the limit of size'}
      value={face.size_left_um}
      quantity="depth"
      faults={draft.faultsOf('size_left_um')}
      onchange={(size_left_um) => draft.changeFace({ size_left_um })}
    />
  {:else if way === 'wall'}
    <NumberField
      label="Wall that must stay"
      value={face.keep_wall_mm}
      quantity="length"
      faults={draft.faultsOf('keep_wall_mm')}
      onchange={(keep_wall_mm) => draft.changeFace({ keep_wall_mm })}
    />
  {/if}
  {#if face.fit}<FitFields {draft} {face} fit={face.fit} />{/if}
  {#if way !== 'none' && way !== 'limit' && way !== 'fit' && limit}
    <p class="small dim">{shown.say(limit, 'depth')} to spare on a side. Measure it, in several places.</p>
  {/if}
</div>
