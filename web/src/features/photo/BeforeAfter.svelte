<!-- Before and after over each other by their two common points; a slider shows more of one or of the other. -->
<script lang="ts">
  import type { PartPhoto } from '../../api/client';
  import { similarity, type Point } from '../../charts/overlay';

  let { before, after }: { before: PartPhoto; after: PartPhoto } = $props();
  let share = $state(50);
  const pair = (photo: PartPhoto) => photo.drawn.anchors as [Point, Point];
  const matrix = $derived(similarity(pair(after), pair(before)));
</script>

<div class="panel flex min-h-0 flex-1 flex-col gap-2 p-3">
  <svg
    viewBox="0 0 {before.width} {before.height}"
    class="min-h-72 w-full flex-1"
    role="img"
    aria-label="Before the work and after it, over each other"
  >
    <image href="/api/part-photos/{before.id}.jpg" width={before.width} height={before.height} />
    {#if matrix}
      <image
        href="/api/part-photos/{after.id}.jpg"
        width={after.width}
        height={after.height}
        transform="matrix({matrix.join(' ')})"
        opacity={share / 100}
      />
    {/if}
  </svg>
  <label class="flex items-center gap-3">
    <span class="small">before</span>
    <input
      class="touch flex-1"
      type="range"
      min="0"
      max="100"
      bind:value={share}
      aria-label="How much of after is seen, %"
    />
    <span class="small">after</span>
  </label>
  {#if !matrix}<p class="text-(--stop)" role="alert">The two points of a photo are one: set them again.</p>{/if}
</div>
