<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import { notices } from './notices.svelte';
</script>

<div
  class="fixed bottom-4 left-1/2 z-60 flex w-full max-w-xl -translate-x-1/2 flex-col gap-2 px-4"
  role="status"
  aria-live="polite"
>
  {#each notices.list as notice (notice.id)}
    <div class="panel flex items-start gap-3 px-3 py-2 shadow-lg" class:!border-(--stop)={notice.kind === 'trouble'}>
      <p class="flex-1 whitespace-pre-line">{notice.text}</p>
      {#if notice.action}
        <button
          class="font-semibold underline"
          onclick={() => {
            notice.action?.run();
            notices.away(notice.id);
          }}>{notice.action.label}</button
        >
      {/if}
      <button aria-label="Put away" onclick={() => notices.away(notice.id)}><X size={16} /></button>
    </div>
  {/each}
</div>
