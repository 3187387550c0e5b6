<!-- Why a face has no steps: masked, sharp, as wanted already, or not possible and what would be. -->
<script lang="ts">
  import type { FacePlan, Face } from '../../api/client';
  import { shown } from '../../units/shown.svelte';
  import Fallback from './Fallback.svelte';

  let { plan, onwant }: { plan: FacePlan; onwant: (want: Face['want']) => void } = $props();
</script>

<div class="grid place-content-center justify-items-center gap-2 p-6 text-center md:h-full md:overflow-auto">
  {#if plan.keep_off}
    <h2 class="text-lg">Masked</h2>
    <p>Mask this face before anything else is done.</p>
  {:else if plan.edge?.wanted === 'sharp'}
    <h2 class="text-lg">Stays sharp</h2>
    <p>Let no wheel roll over it; a strip of tape shows where it is.</p>
  {:else if plan.possible}
    <h2 class="text-lg">Nothing to do</h2>
    <p>This face is as wanted already.</p>
  {:else}
    <h2 class="text-lg text-(--stop)">Not possible: {plan.binding}</h2>
    <p class="max-w-md">{shown.tell(plan.reason_said)}</p>
    {#if plan.fallback}
      <Fallback instead={plan.fallback} {onwant} />
    {:else}
      <p class="small dim max-w-md">Change the limit, the wanted finish or the found depth, and the plan follows.</p>
    {/if}
  {/if}
</div>
