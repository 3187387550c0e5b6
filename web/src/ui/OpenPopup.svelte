<!-- The small panel itself: loaded when somebody reaches for it. -->
<script lang="ts">
  import { Popover, Portal } from '@skeletonlabs/skeleton-svelte';
  import { onMount, type Snippet } from 'svelte';

  interface Props {
    label: string;
    face: Snippet;
    children: Snippet;
    style: string;
  }
  let { label, face, children, style }: Props = $props();
  let open = $state(false);
  onMount(() => void (open = true));
</script>

<Popover {open} onOpenChange={(change) => (open = change.open)}>
  <Popover.Trigger class={style}><span class="sr-only">{label}: </span>{@render face()}</Popover.Trigger>
  <Portal>
    <Popover.Positioner class="z-60">
      <Popover.Content class="floating grid w-80 max-w-[92vw] gap-3 p-4">
        <Popover.Title class="font-semibold">{label}</Popover.Title>
        {@render children()}
      </Popover.Content>
    </Popover.Positioner>
  </Portal>
</Popover>
