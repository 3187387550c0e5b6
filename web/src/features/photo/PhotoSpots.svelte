<!-- Damage that is drawn on a photo: the kinds of spots that it makes in the job, to be named, judged, put together and taken apart. -->
<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import { choices } from '../../api/catalogue.svelte';
  import type { PartPhoto, Spots } from '../../api/client';
  import { rangeOf, withLikely, withWorst } from '../../api/depth';
  import Choice from '../../ui/Choice.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import TextField from '../../ui/TextField.svelte';
  import { sizeOfEach } from '../../units/spots';
  import type { PartOnPhoto } from './photo.svelte';

  let { part, photo }: { part: PartOnPhoto; photo: PartPhoto } = $props();
  const marks = $derived(photo.drawn.marks ?? []);
  const told = $derived(new Set(part.kinds.flatMap((kind) => kind.marks)));
  const loose = $derived(marks.map((_, at) => at).filter((at) => !told.has(at)));
  const word = (at: number) =>
    choices.all?.damages.find((one) => one.id === marks[at]?.damage)?.label ?? marks[at]?.damage ?? '';

  function putInto(value: string) {
    if (value === '') return;
    const [face = '', spots = ''] = value.split(' ');
    void part.putInto(face, spots);
  }
</script>

{#snippet row(at: number)}
  <li class="flex items-center gap-2 border-t border-(--line)">
    <label class="flex flex-1 items-center gap-2">
      <input
        type="checkbox"
        checked={part.picked.includes(at)}
        onchange={(event) => part.pick(at, event.currentTarget.checked)}
      />
      {word(at)} <span class="small dim num">mark {at + 1}</span>
    </label>
    <button
      class="inline-grid size-[24px] place-items-center"
      aria-label="Remove mark {at + 1} away"
      onclick={() => void part.takeOut('marks', at)}><X size={16} /></button
    >
  </li>
{/snippet}

{#each part.kinds as { spots, face, marks: mine } (face.id + spots.id)}
  {@const change = (change: Partial<Spots>) => void part.changeSpots(face.id ?? '', spots.id ?? '', change)}
  {@const judge = (depth_um: Spots['depth_um']) => change({ after: undefined, depth_um })}
  <section class="grid gap-1.5 rounded-lg border border-(--line) bg-(--raised) p-2.5" aria-label="Spots: {spots.name}">
    <TextField
      label="{mine.length} on {face.name}, {sizeOfEach(spots)} each"
      value={spots.name}
      complaint={(name) => (name.trim() ? null : 'It needs a name')}
      onchange={(name) => change({ name })}
    />
    <div class="grid grid-cols-2 gap-2">
      <NumberField
        label="Likely depth"
        lazy
        value={rangeOf(spots.depth_um)?.likely}
        quantity="depth"
        onchange={(um) => judge(withLikely(spots.depth_um, um))}
      />
      <NumberField
        label="At worst"
        lazy
        value={rangeOf(spots.depth_um)?.worst}
        quantity="depth"
        onchange={(um) => judge(withWorst(spots.depth_um, um))}
      />
    </div>
    <ul aria-label="Marks of {spots.name}">
      {#each mine as at (at)}{@render row(at)}{/each}
    </ul>
  </section>
{/each}
{#if loose.length}
  <ul class="grid gap-1" aria-label="Damage on the photo">
    {#each loose as at (at)}{@render row(at)}{/each}
  </ul>
{/if}
{#if part.picked.length}
  <div class="grid gap-1.5" role="group" aria-label="The chosen marks">
    <Choice
      label="Put the {part.picked.length} chosen into"
      value=""
      options={[
        { id: '', label: 'Choose …' },
        ...part.kinds.map(({ spots, face }) => ({
          id: `${face.id} ${spots.id}`,
          label: `${spots.name} on ${face.name}`,
        })),
        ...(part.kept?.job.faces ?? [])
          .filter((face) => !face.edge)
          .map((face) => ({ id: `${face.id} `, label: `a new kind on ${face.name}` })),
      ]}
      onchange={putInto}
    />
    <button class="plain-button touch" onclick={() => void part.takeOutPicked()}>Take the chosen away</button>
  </div>
{/if}
