<!-- What most of the face looks like: damage with its depth, the grade that left it, or as it shall be already. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import type { Face, Found } from '../../api/client';
  import Choice from '../../ui/Choice.svelte';
  import Either from '../../ui/Either.svelte';
  import { foundAs, spotsAs } from '../../api/damage';
  import type { JobDraft } from './draft.svelte';
  import DamageSheet from './DamageSheet.svelte';
  import DepthFields from './DepthFields.svelte';
  import MatchSheet from './MatchSheet.svelte';
  import MeasuredSheet from './MeasuredSheet.svelte';

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

<fieldset class="grid gap-1.5">
  <legend class="small dim">What most of it looks like</legend>
  {#if known !== 'wanted'}
    <Choice
      label="Found"
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
      { id: 'after', label: 'Left by a grade' },
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
      label="Paper grade"
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
</fieldset>
<DamageSheet
  bind:open={naming}
  onchoose={(damage) =>
    damage.length_mm === null
      ? draft.changeFace({ found: foundAs(damage) })
      : draft.addSpots(spotsAs(damage, draft.freeSpots(damage.label)))}
/>
<MatchSheet
  material={draft.job.material}
  bind:open={matching}
  onchoose={(after) => change({ as_wanted: false, depth_um: undefined, after })}
/>
<MeasuredSheet bind:open={measuring} onuse={(depth_um) => change({ as_wanted: false, after: undefined, depth_um })} />
