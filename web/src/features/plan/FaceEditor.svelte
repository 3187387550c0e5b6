<script lang="ts">
  import type { Face } from '../../api/client';
  import TextField from '../../ui/TextField.svelte';
  import type { JobDraft } from './draft.svelte';
  import EdgeFields from './EdgeFields.svelte';
  import AreaFields from './AreaFields.svelte';
  import FoundFields from './FoundFields.svelte';
  import LimitFields from './LimitFields.svelte';
  import PlaceFields from './PlaceFields.svelte';
  import SpotsFields from './SpotsFields.svelte';
  import WantFields from './WantFields.svelte';

  let { draft, face }: { draft: JobDraft; face: Face } = $props();
  const taken = $derived(draft.job.faces.filter((other) => other !== face).map((other) => other.name));

  function complaint(name: string): string | null {
    if (!name.trim()) return face.edge ? 'An edge needs a name' : 'A face needs a name';
    return taken.includes(name) ? 'Another face or edge has this name' : null;
  }
</script>

<div class="grid gap-3 px-3 pb-3">
  <TextField
    label="Name"
    fresh={draft.justAdded}
    value={face.name}
    {complaint}
    onchange={(name) => draft.changeFace({ name })}
  />
  {#if face.edge}
    <EdgeFields {draft} edge={face.edge} />
    {#if face.edge.wanted !== 'sharp'}<WantFields {draft} {face} />{/if}
  {:else}
    <label class="flex items-center gap-2">
      <input
        type="checkbox"
        checked={face.keep_off}
        onchange={(event) => draft.changeFace({ keep_off: event.currentTarget.checked })}
      />
      Mask: do not touch
    </label>
    {#if !face.keep_off}
      <AreaFields {draft} {face} />
      <FoundFields {draft} {face} />
      <SpotsFields {draft} {face} />
      <WantFields {draft} {face} />
      <LimitFields {draft} {face} />
      <PlaceFields {draft} {face} />
    {/if}
  {/if}
  {#if face.edge || draft.job.faces.filter((other) => !other.edge).length > 1}
    <button class="small dim justify-self-start underline" onclick={() => draft.removeFace(draft.faceAt)}
      >Remove this {face.edge ? 'edge' : 'face'}</button
    >
  {/if}
</div>
