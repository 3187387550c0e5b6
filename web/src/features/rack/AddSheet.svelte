<!-- Putting things on the rack: find a row by typing, tick what is there, Enter. -->
<script lang="ts">
  import type { OwnEntry, Stockable } from '../../api/client';
  import Dialog from '../../ui/Dialog.svelte';
  import { notices } from '../../ui/notices.svelte';
  import { onRack, type OwnKind } from '../../own/form';
  import Sheet from '../../ui/Sheet.svelte';
  import { firstOfEach } from '../../ui/unique';
  import { shown } from '../../units/shown.svelte';
  import type { RackDraft } from './rack.svelte';

  let { rack, open = $bindable() }: { rack: RackDraft; open: boolean } = $props();
  let sought = $state('');
  let describing = $state(false);
  let ticked = $state<string[]>([]);
  let many = $state('1');
  let field = $state<HTMLInputElement | null>(null);
  const words = $derived(sought.toLowerCase().split(/\s+/).filter(Boolean));
  const found = $derived(
    rack.things.filter((thing) => {
      // What the kind of wheels and abrasives is called lists everything; it would be found under any word.
      const kind = ['abrasive', 'wheel'].includes(thing.kind) ? '' : thing.kind_label;
      const text = `${thing.label} ${thing.carrier_label} ${kind} ${thing.grade}`.toLowerCase();
      return words.every((word) => text.includes(word));
    }),
  );
  /** One row for each carrier, its grades or compounds side by side. */
  const rows = $derived(
    firstOfEach(found, rowOf).map((first) => ({
      row: rowOf(first),
      label: first.kind === 'machine' || first.kind === 'compound' ? first.kind_label : first.carrier_label,
      things: found.filter((thing) => rowOf(thing) === rowOf(first)),
    })),
  );
  const count = $derived(Math.max(1, Number(many.replace(',', '.')) || 1));

  function rowOf(thing: Stockable): string {
    return thing.single || thing.kind === 'compound' ? thing.kind : thing.carrier;
  }

  function short(thing: Stockable): string {
    if (thing.kind === 'abrasive') return thing.variant;
    return thing.grain_um ? `${thing.label} (${shown.say(thing.grain_um, 'depth')})` : thing.label;
  }

  function toggle(what: string) {
    ticked = ticked.includes(what) ? ticked.filter((one) => one !== what) : [...ticked, what];
  }

  async function add() {
    if (!ticked.length) return;
    const held = (what: string) => rack.things.find((one) => one.what === what)?.single ?? false;
    if (await rack.add(ticked.map((what) => ({ what, count: held(what) ? 1 : count })))) {
      ticked = [];
      sought = '';
      field?.focus();
    }
  }

  /** What was just described stands on the rack at once. */
  async function put(entry: OwnEntry) {
    await rack.load();
    if (await rack.add(onRack(entry).map((what) => ({ what, count: entry.kind === 'tool' ? count : 1 }))))
      notices.say(`${entry.name} is on the rack.`);
  }

  function keys(event: KeyboardEvent) {
    if (event.key !== 'Enter' || event.target instanceof HTMLButtonElement) return;
    event.preventDefault();
    // Enter in the search ticks a single find; otherwise it puts everything ticked on the rack.
    const only = found.length === 1 ? found[0] : undefined;
    if (event.target === field && only && !ticked.includes(only.what)) toggle(only.what);
    else void add();
  }
</script>

<Dialog bind:open wide title="Add to the rack" focus={() => field}>
  <!-- svelte-ignore a11y_no_static_element_interactions -->
  <div onkeydown={keys}>
    <div class="sticky top-0 z-10 mb-2 flex flex-wrap items-end gap-3 bg-(--card) pb-2">
      <label class="flex-1">
        <span class="small dim block">Find in the catalogue, then Tab and Space to tick, Enter to put on</span>
        <input
          bind:this={field}
          class="field"
          placeholder="paper, belt p180, felt, white bar, bench buffer"
          autocomplete="off"
          bind:value={sought}
        />
      </label>
      <label class="w-28">
        <span class="small dim block">How many of each</span>
        <input class="field num" inputmode="decimal" bind:value={many} />
      </label>
      <button class="main-button" disabled={!ticked.length} onclick={add}>Put {ticked.length || ''} on the rack</button>
    </div>
    {#if rack.trouble}<p class="text-(--stop)" role="alert">{rack.trouble}</p>{/if}
    {#each rows as row (row.row)}
      <fieldset class="border-t border-(--line) py-1.5">
        <legend class="sr-only">{row.label}</legend>
        <div class="flex flex-wrap gap-x-4 gap-y-1">
          <span class="w-52 font-semibold">{row.label}</span>
          <div class="flex flex-1 flex-wrap gap-x-4 gap-y-1">
            {#each row.things as thing (thing.what)}
              <label class="flex items-center gap-1.5">
                <input type="checkbox" checked={ticked.includes(thing.what)} onchange={() => toggle(thing.what)} />
                <span class="num">{short(thing)}</span>
              </label>
            {/each}
          </div>
        </div>
      </fieldset>
    {:else}
      <p class="dim">Nothing of the catalogue is called that.</p>
    {/each}
    <button class="mt-3 min-h-[24px] font-semibold underline" onclick={() => (describing = true)}
      >Not listed? Describe it</button
    >
  </div>
</Dialog>
<Sheet
  load={() => import('../../own/OwnSheet.svelte')}
  props={{ kinds: ['tool', 'compound', 'machine'] as OwnKind[], onsaved: put }}
  bind:open={describing}
/>
