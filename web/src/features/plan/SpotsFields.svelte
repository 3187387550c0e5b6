<!-- Anything deeper, in some places? What, how many, how large, how deep. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import { Accordion } from '@skeletonlabs/skeleton-svelte';
  import { choices } from '../../api/catalogue.svelte';
  import { spotsAs } from '../../api/damage';
  import { rangeOf } from '../../api/depth';
  import { p } from '../../app/router';
  import type { Face, Spots } from '../../api/client';
  import Choice from '../../ui/Choice.svelte';
  import Either from '../../ui/Either.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import TextField from '../../ui/TextField.svelte';
  import { shown } from '../../units/shown.svelte';
  import { sizeOfEach } from '../../units/spots';
  import Answer from './Answer.svelte';
  import DepthFields from './DepthFields.svelte';
  import type { JobDraft } from './draft.svelte';
  import { sideOf } from '../../charts/sketch';

  let { draft, face }: { draft: JobDraft; face: Face } = $props();
  const all = $derived(face.spots ?? []);
  const kinds = $derived(choices.all?.found.filter((one) => one.in_places) ?? []);
  const brushed = $derived((face.want.finish ? choices.finish(face.want.finish)?.lay : face.want.lay) === 'one-way');
  /** Where there is one kind alone, it is what is asked about. */
  let opened = $state(untrack(() => (all.length === 1 ? (all[0]?.id ?? '') : '')));

  function change(spots: Spots, change: Partial<Spots>) {
    draft.changeFace({ spots: all.map((one) => (one === spots ? { ...one, ...change } : one)) });
  }

  function remove(spots: Spots) {
    draft.changeFace({ spots: all.filter((one) => one !== spots) });
  }

  function add() {
    const usual = choices.all?.damages.find((one) => one.id === 'gouges');
    if (usual) opened = draft.addSpots(spotsAs(usual, draft.freeSpots(usual.label)));
  }

  function complaint(spots: Spots, name: string): string | null {
    if (!name.trim()) return 'It needs a name';
    return all.some((one) => one !== spots && one.name === name) ? 'Other spots here have this name' : null;
  }

  function depth(spots: Spots): string {
    const range = rangeOf(spots.depth_um);
    return range ? shown.say(range.likely, 'depth') : `left by ${spots.after}`;
  }
</script>

<div class="grid gap-2">
  <Accordion
    class="gap-0 space-y-0 empty:hidden"
    collapsible
    value={[opened]}
    onValueChange={({ value }) => (opened = value[0] ?? '')}
  >
    {#each all as spots, at (spots.id || at)}
      {@const faults = (key: string) => draft.faultsOf(`spots[${at}].${key}`)}
      <Answer
        id={spots.id ?? ''}
        question={spots.name}
        said="{(spots.count ?? 1) > 1 ? `${spots.count} × ` : ''}{sizeOfEach(spots)}, {depth(spots)}"
        open={opened === spots.id}
        within
      >
        <TextField
          label="What it is called"
          value={spots.name}
          complaint={(name) => complaint(spots, name)}
          onchange={(name) => change(spots, { name })}
        />
        <Choice
          label="Kind"
          value={spots.kind ?? 'scratches'}
          options={kinds}
          onchange={(kind) => change(spots, { kind, called: undefined })}
        />
        {#if spots.drawn}
          <p class="small">
            How many and how large is as drawn on the photo: <a
              class="font-semibold underline"
              href={p('/jobs/:id/photo', { params: { id: String(draft.id) } })}>change it there</a
            >.
          </p>
        {:else}
          <NumberField
            label="How many"
            value={spots.count ?? 1}
            integer
            faults={faults('count')}
            onchange={(count) => change(spots, { count })}
          />
          <Either
            label="How large each is"
            value={spots.area_cm2 ? 'area' : 'sides'}
            options={[
              { id: 'sides', label: 'Length and width' },
              { id: 'area', label: 'Area' },
            ]}
            onchange={(way) =>
              change(
                spots,
                way === 'area'
                  ? {
                      area_cm2: ((spots.length_mm ?? 10) * (spots.width_mm ?? 10)) / 100,
                      length_mm: undefined,
                      width_mm: undefined,
                    }
                  : {
                      length_mm: sideOf(spots.area_cm2 ?? 1),
                      width_mm: sideOf(spots.area_cm2 ?? 1),
                      area_cm2: undefined,
                    },
              )}
          />
          {#if spots.area_cm2}
            <NumberField
              label="Area of each"
              value={spots.area_cm2}
              quantity="area"
              faults={faults('area_cm2')}
              onchange={(area_cm2) => change(spots, { area_cm2 })}
            />
          {:else}
            <div class="grid grid-cols-2 gap-2">
              <NumberField
                label="Length"
                value={spots.length_mm}
                quantity="length"
                faults={faults('length_mm')}
                onchange={(length_mm) => change(spots, { length_mm })}
              />
              <NumberField
                label="Width"
                value={spots.width_mm}
                quantity="length"
                faults={faults('width_mm')}
                onchange={(width_mm) => change(spots, { width_mm })}
              />
            </div>
          {/if}
        {/if}
        {#if spots.depth_um}
          <DepthFields
            depth={spots.depth_um}
            faultsOf={(key) => faults(key ? `depth_um.${key}` : 'depth_um')}
            onchange={(depth_um) => change(spots, { depth_um })}
          />
        {:else if spots.after}
          <Choice
            label="Grit"
            value={spots.after}
            options={choices.papersWith(spots.after)}
            onchange={(after) => change(spots, { after })}
          />
        {/if}
        {#if !spots.drawn}<button class="small dim justify-self-start underline" onclick={() => remove(spots)}
            >Remove {spots.name}</button
          >{/if}
      </Answer>
    {/each}
  </Accordion>
  <button class="plain-button justify-self-start" onclick={add}
    >{all.length ? 'Another kind of damage' : 'Yes, in some places'}</button
  >
  {#if all.length && face.found.as_wanted && brushed}
    <label class="small flex items-center gap-2">
      <input
        type="checkbox"
        checked={face.lay_runs_out ?? false}
        onchange={(event) => draft.changeFace({ lay_runs_out: event.currentTarget.checked })}
      />
      The lay runs out at both ends: a band along it will do
    </label>
  {/if}
  {#if all.length}
    <label class="small flex items-center gap-2">
      <input
        type="checkbox"
        checked={face.looked_through ?? false}
        onchange={(event) => draft.changeFace({ looked_through: event.currentTarget.checked })}
      />
      People look through it: no hollow may bend the picture
    </label>
  {/if}
</div>
