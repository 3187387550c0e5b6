<!-- What most of the face looks like: damage with its depth, the grade that left it, or as it shall be already. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import type { Catalogue, Face, Found } from '../../api/client';
  import Choice from '../../ui/Choice.svelte';
  import Sheet from '../../ui/Sheet.svelte';
  import Either from '../../ui/Either.svelte';
  import { foundAs, spotsAs } from '../../api/damage';
  import type { JobDraft } from './draft.svelte';
  import DepthFields from './DepthFields.svelte';

  type Damage = Catalogue['damages'][number];
  type Depth = Found['depth_um'];
  type Known = 'depth' | 'after' | 'wanted';
  let { draft, face }: { draft: JobDraft; face: Face } = $props();
  let matching = $state(false);
  let measuring = $state(false);
  let naming = $state(false);
  const found = $derived(face.found);
  const known = $derived<Known>(found.as_wanted ? 'wanted' : found.after ? 'after' : 'depth');
  const GUESS = { likely: 20, worst: 30 };

  function change(change: Partial<Found>) {
    draft.changeFace({ found: { ...found, ...change } });
  }

  function know(way: Known) {
    if (way === 'wanted') change({ as_wanted: true, depth_um: undefined, called: undefined });
    else if (way === 'after') change({ as_wanted: false, depth_um: undefined, after: found.after ?? 'P180' });
    else change({ as_wanted: false, after: undefined, depth_um: GUESS });
  }
</script>

<div class="grid gap-1.5">
  {#if known !== 'wanted'}
    <Choice
      label="Looks like"
      term={found.kind === 'waviness' ? 'ripple' : found.kind === 'lay' ? 'lay' : undefined}
      value={found.kind}
      options={choices.all?.found.filter((one) => one.all_over) ?? []}
      onchange={(kind) => change({ kind, called: undefined })}
    />
  {/if}
  <Either
    label="How the depth is known"
    value={known}
    options={[
      { id: 'depth', label: 'By depth' },
      { id: 'after', label: 'Left by a grit' },
      { id: 'wanted', label: 'Good already' },
    ]}
    onchange={know}
  />
  <p class="small flex flex-wrap gap-x-3">
    <button class="font-semibold underline" onclick={() => (naming = true)}>Pick the damage from pictures</button>
    <button class="font-semibold underline" onclick={() => (matching = true)}>Identify the grit</button>
    <button class="font-semibold underline" onclick={() => (measuring = true)}>From a measured profile</button>
  </p>
  {#if known === 'after' && found.after}
    <Choice
      label="Grit"
      value={found.after}
      options={choices.papersWith(found.after)}
      onchange={(after) => change({ after })}
    />
  {:else if known === 'depth' && found.depth_um}
    <DepthFields
      depth={found.depth_um}
      faultsOf={(key) => draft.faultsOf(key ? `found.depth_um.${key}` : 'found.depth_um')}
      onchange={(depth_um) => change({ depth_um })}
    />
  {/if}
</div>
<Sheet
  load={() => import('./DamageSheet.svelte')}
  props={{
    onchoose: (damage: Damage) =>
      damage.length_mm === null
        ? draft.changeFace({ found: foundAs(damage) })
        : draft.addSpots(spotsAs(damage, draft.freeSpots(damage.label))),
  }}
  bind:open={naming}
/>
<Sheet
  load={() => import('./MatchSheet.svelte')}
  props={{
    material: draft.job.material,
    onchoose: (after: string) => change({ as_wanted: false, depth_um: undefined, after }),
  }}
  bind:open={matching}
/>
<Sheet
  load={() => import('./MeasuredSheet.svelte')}
  props={{ onuse: (depth_um: Depth) => change({ as_wanted: false, after: undefined, depth_um }) }}
  bind:open={measuring}
/>
