<!-- Loads what shows the short words when the first of them is said. -->
<script lang="ts">
  import type { Component } from 'svelte';
  import { notices } from './notices.svelte';

  let Shown = $state.raw<Component | null>(null);
  let asked = false;

  $effect(() => {
    if (asked || !notices.waiting.length) return;
    asked = true;
    import('./OpenNotices.svelte').then(
      (module) => (Shown = module.default),
      () => (asked = false), // the server is away: what waits is shown with the next word that can be
    );
  });
</script>

{#if Shown}<Shown />{/if}
