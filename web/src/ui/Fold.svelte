<!-- A line that opens what is seldom needed. -->
<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import { Collapsible } from '@skeletonlabs/skeleton-svelte';
  import type { Snippet } from 'svelte';

  interface Props {
    label: string;
    class?: string;
    children: Snippet;
  }
  let { label, class: looks = '', children }: Props = $props();
</script>

<Collapsible class="items-start {looks}">
  <Collapsible.Trigger class="flex min-h-[24px] cursor-pointer items-center gap-1.5 text-left font-semibold">
    {label}
    <ChevronDown size={15} class="dim" aria-hidden="true" />
  </Collapsible.Trigger>
  <Collapsible.Content>{@render children()}</Collapsible.Content>
</Collapsible>
