<!-- The one place for everything of a view that is not the next thing: by its name at a desk, three dots on a phone. -->
<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import Ellipsis from '@lucide/svelte/icons/ellipsis';
  import ActionMenu, { type Group } from './ActionMenu.svelte';

  let { groups, class: looks = '' }: { groups: Group[]; class?: string } = $props();
</script>

<ActionMenu label="Options" {groups} class="plain-button max-md:min-h-11 max-md:px-3 {looks}">
  {#snippet face()}<span class="max-md:hidden">Options</span><ChevronDown
      size={15}
      class="max-md:hidden"
      aria-hidden="true"
    /><Ellipsis size={20} class="md:hidden" aria-hidden="true" />{/snippet}
</ActionMenu>
