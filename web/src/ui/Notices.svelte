<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import { notices } from './notices.svelte';

  /** What takes a step back must be there for the keyboard at once: what was deleted had the focus. */
  function takeFocus(button: HTMLElement) {
    button.focus();
  }
</script>

<div
  class="fixed bottom-4 left-1/2 z-60 flex w-full max-w-xl -translate-x-1/2 flex-col gap-2 px-4"
  role="status"
  aria-live="polite"
>
  {#each notices.list as notice (notice.id)}
    <div
      data-notice={notice.id}
      class="panel flex items-start gap-3 px-3 py-2 shadow-lg"
      class:!border-(--stop)={notice.kind === 'trouble'}
    >
      <p class="flex-1 whitespace-pre-line">{notice.text}</p>
      {#if notice.action}
        <button
          class="min-h-[24px] px-1 font-semibold underline"
          use:takeFocus
          onclick={() => {
            notice.action?.run();
            notices.away(notice.id);
          }}>{notice.action.label}</button
        >
      {/if}
      <button class="grid size-6 place-items-center" aria-label="Dismiss" onclick={() => notices.away(notice.id)}
        ><X size={16} /></button
      >
    </div>
  {/each}
</div>
