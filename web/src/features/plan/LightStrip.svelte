<!-- How the face looks under a low lamp at each stage, worked out from the plan's own laws. -->
<script lang="ts">
  import { api, type Tile } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import LightTile from '../../ui/LightTile.svelte';
  import type { JobDraft } from './draft.svelte';

  let { draft }: { draft: JobDraft } = $props();
  const answer = new Answer<Tile[]>();
  const tiles = $derived(answer.value ?? []);

  // Asked a moment after the last change of the plan, so that typing is never in its way.
  $effect(() => {
    const face = draft.face?.id;
    if (!draft.plan || !face || !draft.facePlan?.steps.length) return;
    const job = $state.snapshot(draft.job) as typeof draft.job;
    const wait = setTimeout(() => answer.ask(api.lightStrip(job, face), true), 400);
    return () => clearTimeout(wait);
  });
</script>

{#if tiles.length && draft.facePlan?.steps.length}
  <section class="shrink-0" aria-label="How it looks under a low lamp">
    <div class="grid grid-flow-col gap-2" style:grid-auto-columns="minmax(0, 1fr)">
      {#each tiles as tile (tile.step)}
        <LightTile
          src="/api/light/{tile.key}.webp"
          label={tile.label}
          words={() => api.lightWords(tile.key)}
          selected={tile.step === draft.stepAt + 1}
        />
      {/each}
    </div>
  </section>
{/if}
