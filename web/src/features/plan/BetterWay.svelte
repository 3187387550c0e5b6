<!-- One line on what another way would gain, where it gains something. -->
<script lang="ts">
  import { duration } from '../../units/units';
  import type { JobDraft } from './draft.svelte';

  let { draft, oncompare }: { draft: JobDraft; oncompare: () => void } = $props();
  const quicker = $derived(draft.quicker);
</script>

{#if quicker}
  <p class="panel px-3.5 py-2.5">
    <b>{quicker.way.by || quicker.way.label}: saves {duration(quicker.minutes)} hands-on.</b>
    <button class="block min-h-[24px] font-semibold underline" onclick={oncompare}>Compare</button>
  </p>
{/if}
