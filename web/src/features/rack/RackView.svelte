<!-- The rack: rails of what the shop owns, coarse to fine, and the item in hand. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import { shown } from '../../units/shown.svelte';
  import Plus from '@lucide/svelte/icons/plus';
  import { choices } from '../../api/catalogue.svelte';
  import { dropped } from '../../api/dropped.svelte';
  import { p, route } from '../../app/router';
  import type { Group } from '../../ui/ActionMenu.svelte';
  import Choice from '../../ui/Choice.svelte';
  import { useKeys } from '../../ui/keys.svelte';
  import AddSheet from './AddSheet.svelte';
  import BuySheet from './BuySheet.svelte';
  import ImportSheet from './ImportSheet.svelte';
  import ItemPanel from './ItemPanel.svelte';
  import Peg from './Peg.svelte';
  import { RackDraft } from './rack.svelte';
  import SetUpsSheet from './SetUpsSheet.svelte';
  import OptionsMenu from '../../ui/OptionsMenu.svelte';
  import Scrolling from '../../ui/Scrolling.svelte';
  import Sheet from '../../ui/Sheet.svelte';

  const rack = new RackDraft();
  let adding = $state(false);
  let buying = $state(false);
  let settingUp = $state(false);
  let importing = $state(false);
  let listing = $state(false);
  const inch = $derived(`inch=${shown.system === 'inch'}`);
  const options = $derived.by((): Group[] => [
    {
      title: 'Rack',
      actions: [
        { id: 'set-ups', label: 'Set-ups for jobs', shown: 'S', run: () => (settingUp = true) },
        { id: 'buy', label: 'What to buy', shown: 'B', run: () => (buying = true) },
        { id: 'own', label: 'The shop’s own', run: () => (listing = true) },
        { id: 'trial', label: 'Try a tool on a trial piece', href: p('/trial') },
        {
          id: 'retired',
          label: rack.retired ? 'Without what is retired' : 'Show what is retired',
          run: () => (rack.retired = !rack.retired),
        },
      ],
    },
    {
      title: 'Files',
      actions: [
        { id: 'import', label: 'Import a rack, JSON or CSV', run: () => (importing = true) },
        { id: 'json', label: 'The rack as JSON', href: '/api/rack/file.json', download: true },
        { id: 'csv', label: 'The rack as CSV', href: '/api/rack/file.csv', download: true },
        { id: 'low', label: 'Low stock, CSV', href: '/api/rack/low.csv', download: true },
        { id: 'pdf', label: 'All labels, PDF', href: `/api/rack/labels.pdf?${inch}`, download: true },
        { id: 'svg', label: 'All labels, SVG', href: `/api/rack/labels.svg?${inch}`, download: true },
      ],
    },
  ]);

  void rack.loadThings();
  $effect(() => {
    const id = Number(route.params.id);
    if (id) rack.chosen = id;
  });
  $effect(() => {
    void [rack.words, rack.carrier, rack.family, rack.retired];
    untrack(() => void rack.load());
  });
  $effect(() => {
    if (rack.chosen !== null) untrack(() => void rack.find());
  });

  useKeys('The rack', [
    { press: 'n', shown: 'N', does: 'Add to the rack', run: () => (adding = true) },
    { press: 'b', shown: 'B', does: 'What to buy next', run: () => (buying = true) },
    { press: 's', shown: 'S', does: 'Set-ups for jobs', run: () => (settingUp = true) },
    { press: 'ArrowRight', shown: '→', does: 'The next item', run: () => walk(1) },
    { press: 'ArrowLeft', shown: '←', does: 'The item before', run: () => walk(-1) },
  ]);

  function walk(by: number) {
    const ids = rack.rails.flatMap((rail) => rail.items.map((item) => item.id));
    const at = ids.indexOf(rack.chosen ?? -1);
    rack.chosen = ids[Math.min(Math.max(at + by, 0), ids.length - 1)] ?? null;
  }
</script>

<svelte:head><title>Rack – Kelbrast</title></svelte:head>

<div class="flex min-h-0 flex-1 flex-col gap-3 px-4.5 py-3">
  <div class="flex flex-wrap items-end gap-x-3 gap-y-2">
    <h1 class="mr-auto self-center">Rack</h1>
    <input
      class="field min-h-10 w-52"
      type="search"
      aria-label="Find by name or note"
      placeholder="Find by name or note"
      bind:value={rack.words}
      autocomplete="off"
    />
    <div class="w-44">
      <Choice
        label="Carrier"
        value={rack.carrier}
        options={[{ id: '', label: 'All' }, ...(rack.page?.carriers ?? [])]}
        onchange={(id) => (rack.carrier = id)}
      />
    </div>
    <div class="w-40">
      <Choice
        label="May be used on"
        value={rack.family}
        options={[{ id: '', label: 'Any metal' }, ...choices.families]}
        onchange={(id) => (rack.family = id)}
      />
    </div>
    <OptionsMenu groups={options} />
    <button class="main-button" onclick={() => (adding = true)}><Plus size={16} />Put on <kbd>N</kbd></button>
  </div>
  {#if rack.trouble && !adding}<p class="panel px-3 py-2 text-(--stop)" role="alert">{rack.trouble}</p>{/if}
  {#if rack.page?.everything === 0}
    <div class="m-auto max-w-md text-center">
      <h2 class="text-lg">Nothing on the rack yet</h2>
      <p class="dim mt-1">
        Put your machines, papers, wheels and bars on it, and jobs can be planned from what you have. Until then they
        are planned from the whole catalogue.
      </p>
      <button class="main-button mt-3" onclick={() => (adding = true)}>Add the first items</button>
    </div>
  {:else if rack.page}
    <div class="grid min-h-0 flex-1 gap-3.5 md:grid-cols-[minmax(0,1fr)_18.5rem]">
      <Scrolling label="Rails" class="min-h-0 pb-2">
        {#each rack.rails as rail (rail.kind)}
          <section class="mb-4" aria-label={rail.label}>
            <h2 class="rail">{rail.label} <span class="dim num">{rail.count}</span></h2>
            <div class="grid grid-cols-[repeat(auto-fill,minmax(8.6rem,1fr))] gap-2 pt-2">
              {#each rail.items as item (item.id)}
                <Peg {item} chosen={item.id === rack.chosen} onchoose={() => (rack.chosen = item.id)} />
              {/each}
            </div>
          </section>
        {:else}
          <p class="dim">Nothing on the rack is like that.</p>
        {/each}
        {#if rack.page.count > rack.items.length}
          <p class="flex items-center gap-3">
            <span class="dim num">{rack.items.length} of {rack.page.count} shown</span>
            <button class="plain-button touch" onclick={() => void rack.more()}>Show more</button>
          </p>
        {/if}
      </Scrolling>
      {#if rack.item}
        <ItemPanel {rack} item={rack.item} />
      {:else}
        <p class="panel dim p-4">Choose an item to see and change it.</p>
      {/if}
    </div>
  {/if}
</div>
<AddSheet {rack} bind:open={adding} />
<BuySheet bind:open={buying} />
<SetUpsSheet bind:open={settingUp} />
<Sheet
  load={() => import('./OwnList.svelte')}
  props={{ onchanged: () => void rack.load() }}
  bind:open={() => listing || dropped.own !== null, (now) => (listing = now)}
/>
<ImportSheet
  bind:open={() => importing || dropped.rack !== null, (now) => (importing = now)}
  ondone={() => void rack.load()}
/>

<style>
  .rail {
    border-bottom: 4px solid color-mix(in oklab, var(--line), var(--dim) 35%);
    padding-bottom: 0.2rem;
  }
</style>
