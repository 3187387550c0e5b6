<!-- A dialog that is loaded when it is opened for the first time. -->
<script lang="ts" generics="P extends object">
  import type { Component } from 'svelte';

  interface Props {
    load: () => Promise<{ default: Component<P & { open: boolean }, object, 'open'> }>;
    props: P;
    open: boolean;
  }
  let { load, props, open = $bindable() }: Props = $props();
  let Loaded = $state.raw<Component<P & { open: boolean }, object, 'open'> | null>(null);

  $effect(() => {
    if (open && !Loaded) void load().then((module) => (Loaded = module.default));
  });
</script>

{#if Loaded}<Loaded {...props} bind:open />{/if}
