<!-- What is wrong with the program, above every view, until it is mended; nothing where all is well. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { api } from '../api/client';
  import { notices } from '../ui/notices.svelte';
  import { health } from './health.svelte';

  onMount(() => health.follow());
  let saving = $state(false);

  async function save() {
    saving = true;
    try {
      const saved = await api.saveHeld();
      notices.say(`Saved as the backup ${saved.name}. Stop the program before you put the right file in place.`);
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    } finally {
      saving = false;
    }
  }
</script>

<div class="contents" role="status">
  {#if health.broken}
    <p class="bar">
      <span>A part of this screen could not be loaded.</span>
      <button class="act" onclick={() => location.reload()}>Reload</button>
    </p>
  {:else if health.updated}
    <p class="bar calm">
      <span>Kelbrast was updated. What you typed is saved; reload when you are ready.</span>
      <button class="act" onclick={() => location.reload()}>Reload</button>
    </p>
  {/if}
  {#each health.troubles as one (one.concern)}
    <p class="bar">
      <span>{one.said}</span>
      {#if one.concern === 'replaced'}
        <button class="act" disabled={saving} onclick={() => void save()}>Save as a backup</button>
      {/if}
    </p>
  {/each}
</div>

<style>
  .bar {
    display: flex;
    align-items: center;
    gap: 0.75rem;
    padding: 0.25rem 1rem;
    background: var(--stop);
    color: var(--paper);
    font-size: 0.9rem;
  }
  .calm {
    background: var(--ink);
  }
  .act {
    margin-left: auto;
    min-height: 24px;
    font-weight: 600;
    white-space: nowrap;
    text-decoration: underline;
  }
</style>
