<script lang="ts">
  import { Router } from 'sv-router';
  import { letIn } from '../api/let-in.svelte';
  import { forgetAll } from '../api/remembered';
  import PairView from '../features/pair/PairView.svelte';
  import './router';
  import Shell from './Shell.svelte';

  $effect(() => {
    if (letIn.out) forgetAll();
  });
</script>

{#if letIn.out}
  <PairView />
{:else}
  <Shell><Router /></Shell>
{/if}
