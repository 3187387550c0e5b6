<!-- A run that went well becomes the house way for the kind of one of its faces. -->
<script lang="ts">
  import { api, type RunPage } from '../../api/client';
  import Choice from '../../ui/Choice.svelte';
  import { notices } from '../../ui/notices.svelte';

  let { run, page }: { run: number; page: RunPage } = $props();
  let chosen = $state('');
  let name = $state('');
  const face = $derived(chosen || page.faces[0]?.face.id || '');

  async function make() {
    try {
      await api.makeHouseWay(run, face, name);
      notices.say(`“${name}” is a house way now: plans of such faces offer it.`);
      name = '';
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }
</script>

{#if page.line.status === 'finished' && page.line.well && page.faces.length}
  <form
    class="no-print panel grid items-end gap-2 p-3 sm:grid-cols-[1fr_1.4fr_auto]"
    aria-label="House way"
    onsubmit={(event) => {
      event.preventDefault();
      void make();
    }}
  >
    <Choice
      label="It came out well: make the way of"
      value={face}
      options={page.faces.map(({ face: { id = '', name } }) => ({ id, label: name }))}
      onchange={(id) => (chosen = id)}
    />
    <label
      ><span class="small dim block">the house way called</span><input
        class="field"
        maxlength="80"
        placeholder="Mirror on brass, our way"
        bind:value={name}
      /></label
    >
    <button class="plain-button" disabled={!name.trim()}>Make it</button>
  </form>
{/if}

<style>
  @media print {
    .no-print {
      display: none;
    }
  }
</style>
