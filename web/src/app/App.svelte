<script lang="ts">
  import { Router } from 'sv-router';
  import { letIn } from '../api/let-in.svelte';
  import { forgetAll } from '../api/remembered';
  import './router';
  import Shell from './Shell.svelte';

  $effect(() => {
    if (letIn.out) forgetAll();
  });
</script>

{#if letIn.out}
  {#await import('../features/pair/PairView.svelte') then { default: PairView }}<PairView />{/await}
{:else}
  <Shell><Router /></Shell>
{/if}
