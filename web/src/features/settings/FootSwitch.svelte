<!-- A foot switch or a ring that sends a key is taught what it means at the bench. -->
<script lang="ts">
  import { MEANINGS, shownKey, taught, type Meaning } from '../../ui/taught.svelte';

  let learning = $state<Meaning | null>(null);
  let refused = $state<string | null>(null);
  const all = Object.entries(MEANINGS) as [Meaning, string][];

  function listen(event: KeyboardEvent) {
    if (!learning) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key === 'Escape') {
      learning = null;
      return;
    }
    refused = taught.teach(learning, event.key);
    if (!refused) learning = null;
  }
</script>

<svelte:window onkeydowncapture={listen} />
<h3 class="mt-1 font-semibold">A foot switch or a ring that sends a key</h3>
<ul class="grid gap-1.5" aria-label="What the switch means">
  {#each all as [meaning, says] (meaning)}
    <li class="flex flex-wrap items-center gap-2">
      <span class="min-w-40 flex-1">{says}</span>
      <kbd class="num">{taught.keys[meaning] ? shownKey(taught.keys[meaning]) : 'none'}</kbd>
      <button
        class="plain-button"
        aria-pressed={learning === meaning}
        aria-label="Teach: {says}"
        onclick={() => {
          learning = learning === meaning ? null : meaning;
          refused = null;
        }}>{learning === meaning ? 'Press it now' : 'Teach'}</button
      >
      {#if taught.keys[meaning]}
        <button class="plain-button" aria-label="Forget: {says}" onclick={() => taught.forget(meaning)}>Forget</button>
      {/if}
    </li>
  {/each}
</ul>
{#if refused}<p class="small text-(--stop)" role="alert">{refused}.</p>{/if}
