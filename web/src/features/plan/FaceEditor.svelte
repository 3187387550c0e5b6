<script lang="ts">
  import type { Face } from '../../api/client';
  import TextField from '../../ui/TextField.svelte';
  import type { JobDraft } from './draft.svelte';
  import AreaFields from './AreaFields.svelte';
  import FoundFields from './FoundFields.svelte';
  import LimitFields from './LimitFields.svelte';
  import PlaceFields from './PlaceFields.svelte';
  import WantFields from './WantFields.svelte';

  let { draft, face }: { draft: JobDraft; face: Face } = $props();
  const taken = $derived(draft.job.faces.filter((other) => other !== face).map((other) => other.name));

  function complaint(name: string): string | null {
    if (!name.trim()) return 'A face needs a name';
    return taken.includes(name) ? 'Another face has this name' : null;
  }
</script>

<div class="grid gap-3 px-3 pb-3">
  <TextField label="Name" value={face.name} {complaint} onchange={(name) => draft.changeFace({ name })} />
  <label class="flex items-center gap-2">
    <input
      type="checkbox"
      checked={face.keep_off}
      onchange={(event) => draft.changeFace({ keep_off: event.currentTarget.checked })}
    />
    Keep off: nothing may touch it
  </label>
  {#if !face.keep_off}
    <AreaFields {draft} {face} />
    <FoundFields {draft} {face} />
    <WantFields {draft} {face} />
    <LimitFields {draft} {face} />
    <PlaceFields {draft} {face} />
  {/if}
  {#if draft.job.faces.length > 1}
    <button class="small dim justify-self-start underline" onclick={() => draft.removeFace(draft.faceAt)}
      >Remove this face</button
    >
  {/if}
</div>
