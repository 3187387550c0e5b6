<!-- What is tried: one of the trials that would help most, or any tool on any material. -->
<script lang="ts">
  import { api, type RackItem, type WorthTrying } from '../../api/client';
  import { choices, isOwn, OURS } from '../../api/catalogue.svelte';
  import OwnChoice from '../../own/OwnChoice.svelte';
  import { Answer } from '../../ui/answer.svelte';
  import Choice from '../../ui/Choice.svelte';
  import { counted, duration } from '../../units/units';
  import type { TrialInHand } from './trial.svelte';

  let { trial }: { trial: TrialInHand } = $props();
  const rack = new Answer<RackItem[]>();
  rack.ask(api.rack());
  const worth = new Answer<WorthTrying[]>();
  worth.ask(api.worthTrying());
  let tool = $state(new URLSearchParams(location.search).get('tool') ?? '');
  let material = $state('brass');
  const owned = $derived(new Set((rack.value ?? []).filter((one) => !one.retired).map((one) => one.item.what)));
  const groupOf = (id: string, carrier: string) =>
    isOwn(id) ? OURS : owned.has(id) || owned.has(carrier) ? 'On the rack' : 'Of the catalogue';
  const ORDER = [OURS, 'On the rack', 'Of the catalogue'];
  const tools = $derived(
    (choices.all?.tools ?? [])
      .map((one) => ({ id: one.id, label: one.label, group: groupOf(one.id, one.carrier) }))
      .sort((a, b) => ORDER.indexOf(a.group) - ORDER.indexOf(b.group)),
  );

  function said(one: WorthTrying): string {
    const saved = one.saved_minutes >= 1 ? `; knowing it saves about ${duration(one.saved_minutes)}` : '';
    return `works ${duration(one.work_minutes)} in ${counted(one.jobs, 'open job')}, give or take ${duration(one.unsure_minutes)}${saved}`;
  }
</script>

<h1 class="!text-3xl">Trial piece</h1>
<p class="dim mt-2 text-lg">
  A marked square on a scrap, worked for a few minutes, tells how fast a tool cuts here: with your hand, your machine,
  your metal.
</p>
{#if worth.value?.length}
  <section class="mt-5" aria-label="Worth trying">
    <h2 class="!text-xl">Worth trying now</h2>
    <ul class="mt-2 grid gap-2">
      {#each worth.value.slice(0, 4) as one (one.tool)}
        <li>
          <button
            class="panel flex min-h-16 w-full flex-wrap items-center gap-x-4 px-4 py-2 text-left hover:border-(--ink)"
            onclick={() => void trial.choose(one.tool, one.material)}
          >
            <b class="text-lg">{one.label}</b><span class="dim text-lg">on {one.material_label.toLowerCase()}</span>
            <span class="dim w-full">{said(one)}</span>
          </button>
        </li>
      {/each}
    </ul>
  </section>
{/if}
<section class="mt-5 grid gap-3" aria-label="Any other">
  <h2 class="!text-xl">Or any other</h2>
  <div class="grid gap-3 sm:grid-cols-2">
    <Choice
      label="Tool"
      value={tool}
      options={[{ id: '', label: 'Choose a tool' }, ...tools]}
      onchange={(id) => (tool = id)}
    />
    <OwnChoice
      label="Material"
      kind="material"
      value={material}
      options={choices.materials}
      onchange={(id) => (material = id)}
    />
  </div>
  {#if trial.trouble}<p class="text-(--stop)" role="alert">{trial.trouble}</p>{/if}
  <button
    class="main-button min-h-14 justify-self-start text-lg"
    disabled={!tool}
    onclick={() => void trial.choose(tool, material)}>Try it</button
  >
</section>
