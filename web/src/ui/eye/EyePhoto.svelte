<!-- A photo of the face as it was taken, with marks on it or something laid over it. -->
<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    photo: Blob | null;
    says: string;
    /** Where old marks lie: from and to, in widths of the photo. */
    lines?: [number, number, number, number][];
    children?: Snippet;
  }
  let { photo, says, lines = [], children }: Props = $props();
  /** Height in its widths. */
  let tall = $state(1);
  const ratio = (one: HTMLImageElement) => one.naturalHeight / Math.max(1, one.naturalWidth);
  const picture = $derived(photo ? URL.createObjectURL(photo) : '');
  $effect(() => {
    const now = picture;
    return () => URL.revokeObjectURL(now);
  });
</script>

<div class="relative mx-auto w-fit overflow-hidden rounded-lg">
  <img
    src={picture}
    alt={says}
    class="block max-h-[40vh] max-w-full"
    onload={(event) => (tall = ratio(event.currentTarget as HTMLImageElement))}
  />
  {#if lines.length}
    <svg
      class="absolute inset-0 h-full w-full"
      viewBox="0 0 1 {tall}"
      preserveAspectRatio="none"
      role="img"
      aria-label="Where old marks lie: {lines.length}"
    >
      {#each lines as [x0, y0, x1, y1], at (at)}
        <line x1={x0} y1={y0} x2={x1} y2={y1} stroke="#000" stroke-width="0.006" stroke-linecap="round" />
        <line x1={x0} y1={y0} x2={x1} y2={y1} stroke="#ff5a3c" stroke-width="0.0032" stroke-linecap="round" />
      {/each}
    </svg>
  {/if}
  {@render children?.()}
</div>
