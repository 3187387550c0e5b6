<script lang="ts">
  import type { Face } from '../../api/client';
  import type { JobDraft } from './draft.svelte';
  import AreaFields from './AreaFields.svelte';
  import FoundFields from './FoundFields.svelte';
  import LimitFields from './LimitFields.svelte';
  import PlaceFields from './PlaceFields.svelte';
  import WantFields from './WantFields.svelte';

  let { draft, face }: { draft: JobDraft; face: Face } = $props();
  const taken = $derived(draft.job.faces.filter((other) => other !== face).map((other) => other.name));
  let nameWrong = $state('');

  function rename(name: string) {
    nameWrong = !name.trim() ? 'A face needs a name' : taken.includes(name) ? 'Another face has this name' : '';
    if (!nameWrong) draft.changeFace({ name });
  }
</script>

<div class="grid gap-3 px-3 pb-3">
  <label class="block">
    <span class="small dim">Name</span>
    <input class="field" maxlength="200" value={face.name} oninput={(event) => rename(event.currentTarget.value)} />
    {#if nameWrong}<span class="small text-(--stop)">{nameWrong}</span>{/if}
  </label>
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
