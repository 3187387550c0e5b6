<!-- The item in hand, edited in place; blank means as in the catalogue. Its history only grows. -->
<script lang="ts">
  import { choices, isOwn, OURS } from '../../api/catalogue.svelte';
  import { p } from '../../app/router';
  import Sheet from '../../ui/Sheet.svelte';
  import { api, type KeptOwn, type RackItem } from '../../api/client';
  import Choice from '../../ui/Choice.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import TextField from '../../ui/TextField.svelte';
  import { shown } from '../../units/shown.svelte';
  import { figures, whole } from '../../units/units';
  import { keptFor, type RackDraft } from './rack.svelte';
  import Scrolling from '../../ui/Scrolling.svelte';

  let { rack, item }: { rack: RackDraft; item: RackItem } = $props();
  const thing = $derived(item.thing);
  const charges = $derived(thing.charges);
  const held = $derived(charges.length > 0);
  let charge = $state('');
  let family = $state('');
  const usable = $derived((!held || charge || charges.length === 1) && family);

  /** What describes it, where it is the shop's own. */
  const ownId = $derived([thing.carrier, thing.what].find(isOwn));
  let describing = $state(false);
  let kept = $state.raw<KeptOwn | null>(null);

  async function changeOwn() {
    kept = (await api.own()).find((one) => one.entry.id === ownId) ?? null;
    describing = kept !== null;
  }

  function use(kind: 'used' | 'downgraded') {
    void rack.note(item, { kind, charge: held ? charge || charges[0]?.id : undefined, family });
  }

  function said(event: RackItem['history'][number]): string {
    const what = [event.charge, event.family && choices.familyLabel(event.family)].filter(Boolean).join(' · ');
    if (event.kind === 'stock') return `${event.amount > 0 ? '+' : ''}${figures(event.amount, 3)}`;
    if (event.kind === 'measured')
      return `measured ${shown.say(event.size_mm ?? 0, 'length', thing.kind === 'lap' ? 6 : 3)}`;
    return `${event.kind}${what ? `: ${what}` : ''}${event.why ? ` (${event.why})` : ''}`;
  }
</script>

<Scrolling as="aside" label="Item in hand" class="panel flex min-h-0 flex-col gap-2.5 p-4">
  <div>
    <h2 class="text-lg leading-tight">{thing.label}</h2>
    <p class="small dim">
      {ownId ? `${OURS}; ` : ''}{keptFor(item) || thing.kind_label}{thing.spindles > 1
        ? `, ${thing.spindles} spindles`
        : ''}
    </p>
    <p class="small flex gap-4">
      {#if ownId}<button class="go font-semibold underline" onclick={() => void changeOwn()}>What it is like</button
        >{/if}
      {#if thing.kind === 'abrasive'}<a class="go underline" href="{p('/trial')}?tool={thing.what}"
          >Try it on a trial piece</a
        >{/if}
    </p>
  </div>
  {#each item.misfits as misfit (misfit.code)}<p class="small rounded bg-(--stop-soft) px-2 py-1">
      {shown.tell(misfit)}
    </p>{/each}
  <TextField
    label="Your name for it"
    value={item.item.name}
    complaint={() => null}
    onchange={(name) => rack.change(item, { name })}
  />
  <div class="grid grid-cols-2 gap-2">
    {#if thing.kind !== 'machine'}
      <NumberField
        label="There now"
        lazy
        value={item.have}
        onchange={(have) => rack.note(item, { kind: 'stock', amount: have - item.have })}
      />
      <NumberField
        label="Buy more at"
        lazy
        value={item.item.low}
        placeholder="never"
        onchange={(low) => rack.change(item, { low })}
        onclear={() => rack.change(item, { low: null })}
      />
      <NumberField
        label="Price"
        lazy
        value={item.item.price}
        placeholder={thing.price === null ? '' : String(thing.price)}
        onchange={(price) => rack.change(item, { price })}
        onclear={() => rack.change(item, { price: null })}
      />
    {:else}
      <NumberField
        label="Its speed, rev/min"
        lazy
        value={item.item.rpm?.[0]}
        placeholder={thing.rpm.map(whole).join(' to ')}
        onchange={(rpm) => rack.change(item, { rpm: [rpm] })}
        onclear={() => rack.change(item, { rpm: [] })}
      />
    {/if}
    {#if thing.life_min !== null}
      <NumberField
        label="Life, min"
        lazy
        value={item.item.life_min}
        placeholder={String(thing.life_min)}
        onchange={(life_min) => rack.change(item, { life_min })}
        onclear={() => rack.change(item, { life_min: null })}
      />
    {/if}
    {#if thing.kind === 'lap'}
      <NumberField
        label="Length"
        lazy
        value={item.item.length_mm}
        quantity="length"
        onchange={(length_mm) => rack.change(item, { length_mm })}
        onclear={() => rack.change(item, { length_mm: null })}
      />
      <NumberField
        label="Grows by, on the diameter"
        lazy
        value={item.item.set_out_um}
        placeholder="not calibrated"
        quantity="depth"
        onchange={(set_out_um) => rack.change(item, { set_out_um })}
        onclear={() => rack.change(item, { set_out_um: null })}
      />
      <Choice
        label="For each"
        value={item.item.set_out_by ?? 'turn'}
        options={[
          { id: 'turn', label: 'turn of its screw' },
          { id: 'mm', label: 'mm of travel of its arbor' },
        ]}
        onchange={(set_out_by: 'turn' | 'mm') => rack.change(item, { set_out_by })}
      />
    {/if}
    {#if thing.diameter_mm !== null || thing.kind === 'lap'}
      <NumberField
        label="Diameter now"
        lazy
        value={item.size_mm}
        placeholder={thing.diameter_mm === null ? 'never measured' : shown.bare(thing.diameter_mm, 'length', 3)}
        quantity={thing.kind === 'lap' ? 'size' : 'length'}
        onchange={(size_mm) => rack.note(item, { kind: 'measured', size_mm })}
      />
    {/if}
    {#if thing.marked_m_s !== null || held}
      <NumberField
        label="Marked limit"
        lazy
        value={item.item.marked_m_s}
        placeholder={thing.marked_m_s === null ? '' : shown.bare(thing.marked_m_s, 'speed', 3)}
        quantity="speed"
        onchange={(marked_m_s) => rack.change(item, { marked_m_s })}
        onclear={() => rack.change(item, { marked_m_s: null })}
      />
      <TextField
        label="Maker's date"
        value={item.item.made}
        complaint={() => null}
        onchange={(made) => rack.change(item, { made })}
      />
    {/if}
  </div>
  {#if thing.keeps_to_one}
    <fieldset class="grid gap-2">
      <legend class="small dim mb-1">Used with, or downgraded to</legend>
      {#if held}
        <Choice
          label="Compound or grit"
          value={charge}
          options={[{ id: '', label: 'Choose' }, ...charges]}
          onchange={(id) => (charge = id)}
        />
      {/if}
      <Choice
        label="Metal family"
        value={family}
        options={[{ id: '', label: 'Choose' }, ...choices.families]}
        onchange={(id) => (family = id)}
      />
      <div class="flex gap-2">
        <button class="plain-button small flex-1" disabled={!usable} onclick={() => use('used')}>Record use</button>
        <button class="plain-button small flex-1" disabled={!usable} onclick={() => use('downgraded')}>Downgrade</button
        >
      </div>
    </fieldset>
  {/if}
  <div class="flex flex-wrap gap-x-4 gap-y-1">
    <a class="small underline" href="/api/rack/labels.pdf?item={item.id}&inch={shown.system === 'inch'}" download
      >Label, PDF</a
    >
    <a class="small underline" href="/api/rack/labels.svg?item={item.id}&inch={shown.system === 'inch'}" download
      >Label, SVG</a
    >
    {#if !item.retired}
      <button class="small underline" onclick={() => rack.note(item, { kind: 'retired' })}>Retire it</button>
    {/if}
    {#if !item.history.some((event) => ['used', 'downgraded'].includes(event.kind))}
      <button class="small underline" onclick={() => rack.remove(item)}>Put on by mistake: take it off</button>
    {/if}
  </div>
  {#if item.history.length}
    <div>
      <h3 class="small dim">History</h3>
      <ol class="small">
        {#each [...item.history].reverse() as event, at (at)}
          <li><span class="dim num">{new Date(event.at).toLocaleDateString()}</span> {said(event)}</li>
        {/each}
      </ol>
    </div>
  {/if}
</Scrolling>
<Sheet
  load={() => import('../../own/OwnSheet.svelte')}
  props={{ kinds: [], kept, onsaved: () => void rack.load() }}
  bind:open={describing}
/>
