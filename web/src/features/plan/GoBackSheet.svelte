<!-- A mark is still there at the light check: how deep, and then patch, whole face, or accepting it. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import type { GoBack, MarkDepth } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import MarkDepthFields from '../../ui/MarkDepth.svelte';
  import WaysBack from '../../ui/WaysBack.svelte';
  import type { JobDraft } from './draft.svelte';

  let { draft, open = $bindable() }: { draft: JobDraft; open: boolean } = $props();
  let mark = $state.raw<MarkDepth>({ depth_um: 5 });
  const answer = new Answer<GoBack>();
  const back = $derived(answer.value?.goback);

  $effect(() => {
    if (open) answer.ask(draft.goBack(mark), true);
  });
</script>

<Dialog bind:open title="A mark is still there after step {draft.stepAt + 1}">
  <div class="grid gap-2.5">
    <MarkDepthFields {mark} papers={choices.papers} onchange={(next) => (mark = next)} />
    {#if answer.trouble}<p class="text-(--stop)" role="alert">{answer.trouble}</p>{/if}
    {#if back}<WaysBack {back} />{/if}
  </div>
</Dialog>
