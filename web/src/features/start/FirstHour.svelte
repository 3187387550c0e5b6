<!-- An empty program asks three things, each of which may be skipped, and then describes the first part. -->
<script lang="ts">
  import Fold from '../../ui/Fold.svelte';
  import { tick } from 'svelte';
  import { choices } from '../../api/catalogue.svelte';
  import { api, type Shop, type Stockable } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import Choice from '../../ui/Choice.svelte';
  import TextField from '../../ui/TextField.svelte';
  import UnitsChoice from '../../ui/UnitsChoice.svelte';
  import DamagePicker from '../../ui/DamagePicker.svelte';
  import { FirstHour, STEPS } from './first-hour.svelte';
  import KitCard from './KitCard.svelte';

  interface Props {
    shop: Shop;
    /** The first part is to be described, as these answers say. */
    ondone: (shop: Shop) => void;
    /** The last question was skipped: nothing was asked for. */
    onskipped: () => void;
    ondemo: () => void;
  }
  let { shop, ondone, onskipped, ondemo }: Props = $props();
  // svelte-ignore state_referenced_locally
  const hour = new FirstHour(shop);
  let heading = $state<HTMLElement>();
  const things = new Answer<Stockable[]>();
  things.ask(api.things());
  const machines = $derived(new Set((choices.all?.machines ?? []).map((one) => one.id)));
  const labelOf = (id: string) => things.value?.find((one) => one.what === id)?.label ?? id;
  const usual = $derived(hour.shop?.usual);

  async function on() {
    if (hour.at === STEPS.length - 1) {
      if (await hour.finish()) ondone(hour.shop!);
      return;
    }
    hour.next();
    await tick();
    heading?.focus();
  }
  async function skip() {
    if (hour.at === 1) hour.kits = [];
    if (hour.at < STEPS.length - 1) await on();
    else if (await hour.finish()) onskipped();
  }
</script>

<section class="mx-auto w-full max-w-4xl flex-1 p-5" aria-label="The first hour">
  <p class="small dim">Question {hour.at + 1} of {STEPS.length}</p>
  {#if hour.at === 0}
    <h1 bind:this={heading} tabindex="-1">How do you measure and charge?</h1>
    <p class="dim mb-4">Both can be changed at any time; nothing is asked for again.</p>
    <div class="grid max-w-md gap-4">
      <UnitsChoice />
      <TextField
        label="Currency of your prices"
        value={hour.shop?.currency ?? ''}
        complaint={(text) => (text.length > 8 ? 'At most 8 letters' : null)}
        onchange={(currency) => hour.change({ currency })}
      />
    </div>
  {:else if hour.at === 1}
    <h1 bind:this={heading} tabindex="-1">What is in your shop?</h1>
    <p class="dim mb-4">
      Tick what you have something of. Plans then use only that; you add and change it on the rack.
    </p>
    <div class="grid gap-2.5 sm:grid-cols-2">
      {#each choices.all?.kits ?? [] as kit (kit.id)}
        <KitCard
          {kit}
          machines={Object.keys(kit.items).filter((one) => machines.has(one)).length
            ? Object.keys(kit.items).filter((one) => machines.has(one))
            : ['hand']}
          ticked={hour.kits.includes(kit.id)}
          onchange={(ticked) => hour.tick(kit.id, ticked)}
        />
      {/each}
    </div>
    {#if hour.things.length}
      <Fold label="{hour.kept.length} items go on the rack: adjust" class="mt-4">
        <ul class="mt-2 grid gap-x-5 sm:grid-cols-2 lg:grid-cols-3">
          {#each hour.things as thing (thing)}
            <li>
              <label class="flex min-h-8 items-center gap-2">
                <input
                  type="checkbox"
                  class="size-5"
                  checked={!hour.left.includes(thing)}
                  onchange={(event) => hour.leave(thing, event.currentTarget.checked)}
                />
                {labelOf(thing)}
              </label>
            </li>
          {/each}
        </ul>
      </Fold>
    {/if}
  {:else}
    <h1 bind:this={heading} tabindex="-1">What usually comes in?</h1>
    <p class="dim mb-4">A new job begins with this, so that there is little to change.</p>
    <div class="grid gap-4 sm:grid-cols-2">
      <Choice
        label="Mostly of"
        value={usual?.material ?? ''}
        options={choices.materials}
        onchange={(material) => hour.usual({ material })}
      />
      <Choice
        label="Mostly to become"
        value={usual?.finish ?? ''}
        options={choices.all?.finishes ?? []}
        onchange={(finish) => hour.usual({ finish })}
      />
    </div>
    <div class="mt-4">
      <DamagePicker
        label="Mostly with"
        value={usual?.damage ?? null}
        damages={choices.all?.damages ?? []}
        onchoose={(damage) => hour.usual({ damage })}
      />
    </div>
  {/if}
  <div class="mt-6 flex flex-wrap items-center gap-3">
    <button class="main-button touch" disabled={hour.busy} onclick={on}>
      {hour.at === STEPS.length - 1 ? 'Describe the first part' : 'Next'}
    </button>
    <button class="plain-button touch" disabled={hour.busy} onclick={skip}>Skip this</button>
    {#if hour.at}<button class="plain-button touch" onclick={() => (hour.at -= 1)}>Back</button>{/if}
    <span class="flex-1"></span>
    <button class="small touch underline" onclick={ondemo}>Look at the demo workshop first</button>
  </div>
</section>
