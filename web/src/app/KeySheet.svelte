<script lang="ts">
  import Dialog from '../ui/Dialog.svelte';
  import { activeKeys } from '../ui/keys.svelte';
  import { p, route } from './router';
  import { VIEWS } from './views';

  let { open = $bindable() }: { open: boolean } = $props();
  const parts = $derived(route.pathname.split('/').filter(Boolean));
  const view = $derived(VIEWS[parts[0] === 'jobs' && parts.length > 1 ? 'plan' : (parts[0] ?? 'jobs')]);
</script>

<Dialog bind:open title="This screen and its keys">
  {#if view}
    <h2>{view.title}</h2>
    {#each view.says as says (says)}<p class="mt-1">{says}</p>{/each}
    <p class="mt-2">
      <a class="underline go" href={p('/manual/:page', { params: { page: view.page } })} onclick={() => (open = false)}
        >More in the manual</a
      >
    </p>
  {/if}
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
