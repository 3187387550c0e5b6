<!-- The short words at the foot of the screen, the newest nearest to the edge. -->
<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import { Toast, createToaster } from '@skeletonlabs/skeleton-svelte';
  import { notices, type Notice } from './notices.svelte';

  const toaster = createToaster({ placement: 'bottom', overlap: false, gap: 8, max: 6 });

  $effect(() => {
    const taken = notices.take();
    // Not within the effect: the toaster settles its own state at once.
    if (taken.length) setTimeout(() => taken.forEach((notice) => toaster.create(toasted(notice))));
  });

  function toasted({ text, kind, action }: Notice) {
    return {
      description: text,
      type: kind === 'trouble' ? 'error' : 'info',
      duration: kind === 'trouble' ? Infinity : action ? 12_000 : 5_000,
      action: action && { label: action.label, onClick: action.run },
    };
  }

  /** What takes a step back must be there for the keyboard at once: what was deleted had the focus. */
  function takeFocus(button: HTMLElement) {
    button.focus();
  }
</script>

<Toast.Group {toaster} aria-label="Notices">
  {#snippet children(toast)}
    <Toast {toast} class="max-w-xl! shadow-lg">
      <Toast.Description class="flex-1 text-base! whitespace-pre-line">{toast.description}</Toast.Description>
      {#if toast.action}
        <Toast.ActionTrigger>
          {#snippet element(attributes)}
            <button {...attributes} use:takeFocus>{toast.action?.label}</button>
          {/snippet}
        </Toast.ActionTrigger>
      {/if}
      <Toast.CloseTrigger class="grid size-6 place-items-center" aria-label="Dismiss"
        ><X size={16} /></Toast.CloseTrigger
      >
    </Toast>
  {/snippet}
</Toast.Group>
