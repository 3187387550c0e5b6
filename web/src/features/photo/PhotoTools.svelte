<!-- What a tap on the photo means. -->
<script lang="ts">
  import type { PartOnPhoto, Tool } from './photo.svelte';

  let { part }: { part: PartOnPhoto } = $props();
  const TOOLS: { id: Tool; label: string }[] = [
    { id: 'length', label: 'A known length' },
    { id: 'rectangle', label: 'Four corners' },
    { id: 'outline', label: 'Outline a face' },
    { id: 'mark', label: 'Mark damage' },
    { id: 'move', label: 'Move points' },
    { id: 'anchors', label: 'Two points to lay it over another' },
  ];
</script>

<div class="grid grid-cols-2 gap-1.5" role="group" aria-label="What a tap means">
  {#each TOOLS as tool (tool.id)}
    <button
      class="plain-button touch !px-2 odd:last:col-span-2"
      class:on={part.tool === tool.id}
      aria-pressed={part.tool === tool.id}
      onclick={() => part.take(tool.id)}>{tool.label}</button
    >
  {/each}
</div>

<style>
  .on {
    background: var(--bar);
    color: var(--on-bar);
  }
</style>
