<!-- The menu itself, with what makes it one: loaded when somebody reaches for it. -->
<script lang="ts">
  import { Menu, Portal } from '@skeletonlabs/skeleton-svelte';
  import { onMount, type Snippet } from 'svelte';
  import type { HTMLAnchorAttributes } from 'svelte/elements';
  import type { Group } from './ActionMenu.svelte';

  interface Props {
    label: string | undefined;
    groups: Group[];
    face: Snippet;
    style: string;
    current: boolean;
    open: boolean;
  }
  let { label, groups, face, style, current, open: atOnce }: Props = $props();
  const all = $derived(groups.flatMap((group) => group.actions));
  let open = $state(false);

  /** After the menu has given the focus back: what is opened may take it. */
  function act(id: string) {
    const run = all.find((one) => one.id === id)?.run;
    if (run) setTimeout(run, 50);
  }
  onMount(() => void (open = atOnce));
</script>

<Menu {open} onOpenChange={(change) => (open = change.open)} onSelect={(chosen) => act(chosen.value)}>
  <Menu.Trigger class={style} aria-label={label} data-current={current || undefined}>{@render face()}</Menu.Trigger>
  <Portal>
    <Menu.Positioner class="z-60">
      <Menu.Content class="floating max-h-[80vh] min-w-56 overflow-auto p-1.5">
        {#each groups.filter((group) => group.actions.length) as group, at (group.title ?? at)}
          {#if at > 0}<Menu.Separator class="my-1 border-t border-(--line)" />{/if}
          <Menu.ItemGroup>
            {#if group.title}<Menu.ItemGroupLabel class="small dim px-3 py-1">{group.title}</Menu.ItemGroupLabel>{/if}
            {#each group.actions as action (action.id)}
              <Menu.Item value={action.id} disabled={action.disabled} class="menu-item touch">
                {#snippet element(attributes)}
                  {#if action.href}
                    <a
                      {...attributes as HTMLAnchorAttributes}
                      href={action.href}
                      download={action.download || undefined}
                      aria-current={action.current ? 'page' : undefined}
                    >
                      <span>{action.label}</span>{#if action.shown}<kbd class="dim">{action.shown}</kbd>{/if}
                    </a>
                  {:else}
                    <div {...attributes} aria-current={action.current ? 'true' : undefined}>
                      <span>{action.label}</span>{#if action.shown}<kbd class="dim">{action.shown}</kbd>{/if}
                    </div>
                  {/if}
                {/snippet}
              </Menu.Item>
            {/each}
          </Menu.ItemGroup>
        {/each}
      </Menu.Content>
    </Menu.Positioner>
  </Portal>
</Menu>
