<script lang="ts">
  import Dialog from '../ui/Dialog.svelte';
  import { activeKeys } from '../ui/keys.svelte';

  let { open = $bindable() }: { open: boolean } = $props();
</script>

<Dialog bind:open title="Keys of this screen">
  {#each activeKeys.groups as group (group.title)}
    <h2 class="dim mt-3">{group.title}</h2>
    <dl class="mt-1 grid grid-cols-[6rem_1fr] gap-y-1">
      {#each group.keys as key (key.press)}
        <dt><kbd class="rounded border border-(--line) bg-(--raised) px-1.5">{key.shown}</kbd></dt>
        <dd>{key.does}</dd>
      {/each}
    </dl>
  {/each}
  <p class="small dim mt-4">Keys wait while you type.</p>
</Dialog>
