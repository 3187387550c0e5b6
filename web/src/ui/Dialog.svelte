<script lang="ts">
  import { Dialog as Parts, Portal } from '@skeletonlabs/skeleton-svelte';
  import X from '@lucide/svelte/icons/x';
  import type { Snippet } from 'svelte';

  interface Props {
    open: boolean;
    title: string;
    children: Snippet;
    /** What has the focus when it opens; the close button when not given. */
    focus?: () => HTMLElement | null;
    /** For tables. */
    wide?: boolean;
  }
  let { open = $bindable(), title, children, focus, wide = false }: Props = $props();
</script>

<Parts {open} initialFocusEl={focus} onOpenChange={(change) => (open = change.open)}>
  <Portal>
    <Parts.Backdrop class="fixed inset-0 z-40 bg-black/50" />
    <Parts.Positioner class="fixed inset-0 z-50 flex items-start justify-center p-4 pt-[12vh]">
      <Parts.Content
        class="max-h-[76vh] w-full {wide
          ? 'max-w-4xl'
          : 'max-w-xl'} overflow-auto rounded-[10px] border border-(--line) bg-(--card) p-4 shadow-xl"
      >
        <div class="mb-3 flex items-center justify-between gap-4">
          <Parts.Title class="text-lg font-bold">{title}</Parts.Title>
          <Parts.CloseTrigger class="plain-button min-w-10 !p-1.5" aria-label="Close"
            ><X size={16} /></Parts.CloseTrigger
          >
        </div>
        {#if open}{@render children()}{/if}
      </Parts.Content>
    </Parts.Positioner>
  </Portal>
</Parts>
