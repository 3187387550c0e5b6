<!-- Something that no catalogue lists: like a known one, but for what differs. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import { api, Problem, type KeptOwn, type Measured, type OwnEntry, type OwnLikes } from '../api/client';
  import { choices } from '../api/catalogue.svelte';
  import { Answer } from '../ui/answer.svelte';
  import Choice from '../ui/Choice.svelte';
  import Dialog from '../ui/Dialog.svelte';
  import Either from '../ui/Either.svelte';
  import Fold from '../ui/Fold.svelte';
  import MeasuredFile from '../ui/MeasuredFile.svelte';
  import NumberField from '../ui/NumberField.svelte';
  import TextField from '../ui/TextField.svelte';
  import { shown } from '../units/shown.svelte';
  import { blank, KINDS, listed, type OwnKind } from './form';

  interface Props {
    open: boolean;
    /** The kinds that can be described here; the first is asked about. */
    kinds: OwnKind[];
    /** One that is changed, instead of a new one. */
    kept?: KeptOwn | null;
    onsaved: (entry: OwnEntry) => void;
  }
  let { open = $bindable(), kinds, kept = null, onsaved }: Props = $props();
  const BY = 'kelbrast.own.by';
  let entry = $state<OwnEntry>(blank('tool', ''));
  let refused = $state.raw<Error | null>(null);
  let busy = $state(false);
  const likes = new Answer<OwnLikes>();
  $effect(() => {
    if (!open) return;
    // Begun once for each opening: what is typed meanwhile stays, whatever comes in.
    untrack(() => {
      refused = null;
      entry = kept ? structuredClone(kept.entry) : blank(kinds[0] ?? 'tool', localStorage.getItem(BY) ?? '');
      if (!likes.value) likes.ask(api.ownLikes());
    });
  });
  const known = $derived(likes.value?.[entry.kind] ?? []);
  const like = $derived(known.find((one) => one.id === entry.like));
  const faults = $derived(refused instanceof Problem ? refused.faults : []);
  const asked = ['name', 'like', 'grades', 'cuts_like', 'hardness', 'grain', 'coarsest', 'rpm', 'rpm_range', 'ra_um'];
  const elsewhere = $derived(faults.filter((fault) => !asked.some((key) => fault.field.startsWith(key))));

  function said(key: string): string[] {
    return faults.filter((fault) => fault.field.startsWith(key)).map((fault) => fault.message);
  }

  function change(next: object) {
    entry = { ...entry, ...next } as OwnEntry;
  }

  async function save() {
    busy = true;
    refused = null;
    try {
      localStorage.setItem(BY, entry.by ?? '');
      const saved = kept ? await api.changeOwn(kept.entry.id ?? '', entry, kept.revision) : await api.addOwn(entry);
      await choices.again();
      open = false;
      onsaved(saved.entry);
    } catch (problem) {
      refused = problem as Error;
    } finally {
      busy = false;
    }
  }
</script>

{#snippet measuredPiece(measured: Measured)}
  {#if measured.kind === 'profile'}
    <button
      type="button"
      class="plain-button mt-2"
      onclick={() => change({ measured_ra_um: measured.Ra_um, ra_um: null })}
      >Use its Ra, {shown.say(measured.Ra_um, 'roughness', 3)}</button
    >
  {:else}<p class="mt-2">A map: take a profile of it across the lay.</p>{/if}
{/snippet}

{#snippet times(label: string, key: 'cuts' | 'lasts' | 'marks', value: number | undefined)}
  <NumberField {label} value={value ?? 1} onchange={(factor) => change({ [key]: factor })} />
{/snippet}

{#snippet grade(label: string, key: 'grain' | 'coarsest' | 'cuts_like', value: string | null | undefined, hint: string)}
  <TextField
    {label}
    value={value ?? ''}
    placeholder={hint}
    complaint={() => null}
    faults={said(key)}
    onchange={(text) => change({ [key]: text.trim() || null })}
  />
{/snippet}

<Dialog bind:open title={kept ? `Change ${kept.entry.name}` : 'Describe one of your own'}>
  <form
    class="grid gap-3"
    onsubmit={(event) => {
      event.preventDefault();
      void save();
    }}
  >
    {#if kinds.length > 1 && !kept}
      <Either
        label="What it is"
        value={entry.kind}
        options={KINDS.filter((kind) => kinds.includes(kind.id))}
        onchange={(kind) => (entry = { ...blank(kind, entry.by ?? ''), name: entry.name })}
      />
    {/if}
    <TextField
      label="Name"
      value={entry.name}
      complaint={() => null}
      faults={said('name')}
      onchange={(name) => change({ name })}
    />
    <Choice
      label="Most like"
      value={entry.like}
      options={[{ id: '', label: 'Choose the nearest known one' }, ...known]}
      onchange={(id) => change({ like: id })}
    />
    {#if like}
      <p class="small dim">What you leave as it is, is as of {like.label}.</p>
      {#if entry.kind === 'tool'}
        {#if !like.charged}
          <TextField
            label="Grits that you have, as on the back"
            value={(entry.grades ?? []).join(', ')}
            placeholder="P80, P120"
            complaint={() => null}
            faults={said('grades')}
            lazy
            onchange={(text) => change({ grades: listed(text) })}
          />
        {/if}
        <div class="grid grid-cols-3 gap-3">
          {@render times('Cuts, times as fast', 'cuts', entry.cuts)}
          {#if like.dies}{@render times('Lasts, times as long', 'lasts', entry.lasts)}{/if}
          {@render times('Marks, times as deep', 'marks', entry.marks)}
        </div>
        {#if entry.grades?.length === 1}
          {@render grade('Or: cuts like the grit', 'cuts_like', entry.cuts_like, 'as its own')}
        {/if}
        <div class="grid grid-cols-3 gap-3">
          <NumberField
            label="Marked speed, m/s"
            value={entry.marked_m_s}
            placeholder="as known"
            onchange={(marked_m_s) => change({ marked_m_s })}
            onclear={() => change({ marked_m_s: null })}
          />
          {#if like.has_diameter}
            <NumberField
              label="Diameter"
              quantity="length"
              value={entry.diameter_mm}
              placeholder="as known"
              onchange={(diameter_mm) => change({ diameter_mm })}
              onclear={() => change({ diameter_mm: null })}
            />
          {/if}
          <NumberField
            label="Price"
            value={entry.price}
            placeholder="as known"
            onchange={(price) => change({ price })}
            onclear={() => change({ price: null })}
          />
        </div>
      {:else if entry.kind === 'compound'}
        <div class="grid grid-cols-2 gap-3">
          {@render grade('Grain', 'grain', entry.grain, '6um, or a grade')}
          {@render times('Cuts, times as fast', 'cuts', entry.cuts)}
        </div>
      {:else if entry.kind === 'machine'}
        <TextField
          label="Fixed speeds, rev/min"
          value={(entry.rpm ?? []).join(', ')}
          placeholder="1400, 2800"
          complaint={(text) =>
            listed(text).every((one) => Number(one) > 0) ? null : 'Numbers with commas between them'}
          faults={said('rpm')}
          lazy
          onchange={(text) => change({ rpm: listed(text).map(Number), rpm_range: null })}
        />
        <div class="grid grid-cols-2 gap-3">
          {#each ['Or from, rev/min', 'to, rev/min'] as label, end (end)}
            <NumberField
              {label}
              value={entry.rpm_range?.[end]}
              placeholder="as known"
              onchange={(rpm) => {
                const [low, high] = entry.kind === 'machine' ? (entry.rpm_range ?? [rpm, rpm]) : [rpm, rpm];
                change({ rpm: [], rpm_range: end === 0 ? [rpm, high] : [low, rpm] });
              }}
              onclear={() => change({ rpm_range: null })}
            />
          {/each}
        </div>
      {:else if entry.kind === 'material'}
        <div class="grid grid-cols-2 gap-3">
          <NumberField
            label="Hardness"
            value={entry.hardness?.value}
            placeholder="as known"
            faults={said('hardness')}
            onchange={(value) =>
              entry.kind === 'material' && change({ hardness: { value, scale: entry.hardness?.scale ?? 'HB' } })}
            onclear={() => change({ hardness: null })}
          />
          <Choice
            label="Scale"
            value={entry.hardness?.scale ?? 'HB'}
            options={(likes.value?.hardness ?? []).map((id) => ({ id, label: id }))}
            onchange={(scale) =>
              entry.kind === 'material' && change({ hardness: { value: entry.hardness?.value ?? 100, scale } })}
          />
        </div>
        {@render grade('Coarsest grit that it bears', 'coarsest', entry.coarsest, 'as known')}
        <Fold label="Weight, expansion and heat">
          <div class="grid grid-cols-3 gap-3 pt-2">
            <NumberField
              label="Density, kg/m³"
              value={entry.density_kg_m3}
              placeholder="as known"
              onchange={(density_kg_m3) => change({ density_kg_m3 })}
              onclear={() => change({ density_kg_m3: null })}
            />
            <NumberField
              label="Expansion, µm/(m K)"
              value={entry.expansion_um_mk}
              placeholder="as known"
              onchange={(expansion_um_mk) => change({ expansion_um_mk })}
              onclear={() => change({ expansion_um_mk: null })}
            />
            <NumberField
              label="Stay below"
              quantity="temperature"
              value={entry.limit_c}
              placeholder="as known"
              onchange={(limit_c) => change({ limit_c })}
              onclear={() => change({ limit_c: null })}
            />
          </div>
        </Fold>
      {:else if entry.kind === 'finish'}
        <NumberField
          label="Ra of a piece that it shall look like"
          quantity="roughness"
          value={entry.measured_ra_um}
          placeholder="not measured"
          onchange={(measured_ra_um) => change({ measured_ra_um, ra_um: null })}
          onclear={() => change({ measured_ra_um: null })}
        />
        <Fold label="From a measured profile">
          <div class="pt-2"><MeasuredFile read={api.measure} shown={measuredPiece} /></div>
        </Fold>
        <Choice
          label="Lay"
          value={entry.lay ?? ''}
          options={[{ id: '', label: `As of ${like.label}` }, ...(choices.all?.lays ?? [])]}
          onchange={(lay) => change({ lay: lay || null })}
        />
      {/if}
      <TextField label="Put in by" value={entry.by ?? ''} complaint={() => null} onchange={(by) => change({ by })} />
    {/if}
    {#if elsewhere.length || (refused && !faults.length)}
      <p class="text-(--stop)" role="alert">
        {elsewhere.length
          ? elsewhere.map((fault) => `${fault.where || fault.field}: ${fault.message}`).join('; ')
          : refused?.message}
      </p>
    {/if}
    <button class="main-button justify-self-start" disabled={busy || !entry.name.trim() || !entry.like}>Save</button>
  </form>
</Dialog>
