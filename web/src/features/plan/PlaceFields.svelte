<!-- How the face can be reached, and what is behind it. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import type { Face } from '../../api/client';
  import Choice from '../../ui/Choice.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import type { JobDraft } from './draft.svelte';

  let { draft, face }: { draft: JobDraft; face: Face } = $props();
  const shape = $derived(choices.all?.shapes.find((one) => one.id === face.shape?.kind));
  const curved = $derived(face.curved ?? shape?.curved ?? false);

  function reach(way: Face['reach']) {
    const measured = face.shape?.kind === 'bore' && face.shape.diameter_mm ? face.shape.diameter_mm / 2 : 15;
    draft.changeFace({
      reach: way,
      inside_radius_mm: way === 'inside' ? (face.inside_radius_mm ?? measured) : undefined,
    });
  }

  /** It holds for the whole part, and is asked where reach is asked. */
  function carry(way: string) {
    draft.job.carried = way === 'judged' ? undefined : way === 'carried';
    draft.changed();
  }
</script>

<div class="grid grid-cols-2 gap-2">
  <Choice label="Reach" term="reach" value={face.reach} options={choices.all?.reaches ?? []} onchange={reach} />
  {#if face.reach === 'inside'}
    <NumberField
      label="Inside radius"
      value={face.inside_radius_mm}
      quantity="length"
      faults={draft.faultsOf('inside_radius_mm')}
      onchange={(inside_radius_mm) => draft.changeFace({ inside_radius_mm })}
    />
    <label class="flex items-center gap-2 self-end pb-1.5" title="Tools reach in from the open end alone">
      <input
        type="checkbox"
        checked={face.blind}
        onchange={(event) => draft.changeFace({ blind: event.currentTarget.checked })}
      />
      Open at one end only
    </label>
  {/if}
  <NumberField
    label="Wall behind it"
    value={face.thickness_mm}
    quantity="length"
    faults={draft.faultsOf('thickness_mm')}
    placeholder="thick"
    onchange={(thickness_mm) => draft.changeFace({ thickness_mm })}
    onclear={() => draft.changeFace({ thickness_mm: undefined })}
  />
  <!-- More figures of the face stand here. -->
  <label class="flex items-center gap-2 self-end pb-1.5">
    <input
      type="checkbox"
      checked={curved}
      onchange={(event) => draft.changeFace({ curved: event.currentTarget.checked })}
    />
    Curved face
  </label>
  <label class="flex items-center gap-2 self-end pb-1.5" title="It seals, seats or measures">
    <input
      type="checkbox"
      checked={face.stays_flat}
      onchange={(event) => draft.changeFace({ stays_flat: event.currentTarget.checked })}
    />
    Has to stay flat
  </label>
  <div class="col-span-2">
    <Choice
      label="The part, for bench machines"
      value={draft.job.carried === true ? 'carried' : draft.job.carried === false ? 'fixed' : 'judged'}
      options={[
        { id: 'judged', label: 'Judge by its size and weight' },
        { id: 'carried', label: 'Can be brought to the wheel' },
        { id: 'fixed', label: 'Stays where it is' },
      ]}
      onchange={carry}
    />
  </div>
</div>
