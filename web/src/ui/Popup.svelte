<!-- A line of text that opens a small panel with a few fields. -->
<script lang="ts">
  import type { Snippet } from 'svelte';

  let { label, face, children }: { label: string; face: Snippet; children: Snippet } = $props();
  const style = 'min-h-[24px] rounded text-left underline decoration-dotted underline-offset-4';
  let OpenPopup = $state.raw<typeof import('./OpenPopup.svelte').default | null>(null);
  /** It was pressed before the panel was there. */
  let pressed = $state(false);

  async function reach() {
    OpenPopup ??= (await import('./OpenPopup.svelte')).default;
  }
</script>

{#if OpenPopup && pressed}
  <OpenPopup {label} {face} {children} {style} />
{:else}
  <button
    class={style}
    aria-haspopup="dialog"
    aria-expanded="false"
    onpointerenter={reach}
    onclick={() => {
      pressed = true;
      void reach();
    }}><span class="sr-only">{label}: </span>{@render face()}</button
  >
{/if}
