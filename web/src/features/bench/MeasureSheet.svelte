<!-- A reading: typed, or read from an instrument; held against the limits at once. -->
<script lang="ts">
  import { api, type Measured, type Measuring, type Reading } from '../../api/client';
  import ProfileChart from '../../charts/ProfileChart.svelte';
  import { Answer } from '../../ui/answer.svelte';
  import Choice from '../../ui/Choice.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { understood } from '../../ui/understood';
  import MeasuredFile from '../../ui/MeasuredFile.svelte';
  import { notices } from '../../ui/notices.svelte';
  import { shown } from '../../units/shown.svelte';
  import type { Quantity } from '../../units/units';
  import type { BenchRun } from './run.svelte';

  let { bench, open, onclose }: { bench: BenchRun; open: boolean; onclose: () => void } = $props();
  const SHOWN: Record<string, Quantity | null> = {
    size: 'length',
    coat: 'depth',
    ra: 'roughness',
    temperature: 'temperature',
    weight: 'mass',
    gloss: 'gloss',
    spindle: 'turns',
  };
  const known = new Answer<Measuring>();
  let quantity = $state<Reading['quantity']>('size');
  let value = $state<number | null>(null);
  let position = $state('');
  let direction = $state('');
  let by = $state<Pick<Reading, 'instrument' | 'simulated'>>({ instrument: '', simulated: false });
  const instruments = $derived(known.value?.instruments.filter((one) => one.quantity === quantity) ?? []);

  $effect(() => {
    if (open && !known.value) known.ask(api.measuring());
  });

  function typed(number: number) {
    value = number;
    by = { instrument: '', simulated: false };
  }

  async function read(id: string) {
    try {
      const reading = await api.readInstrument(bench.run.id, id);
      value = reading.value;
      by = { instrument: reading.instrument, simulated: reading.simulated };
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }

  async function keep() {
    if (value === null) return;
    const measured = { quantity, value, position, direction, ...by };
    const hand = bench.hand;
    const at = hand ? { piece: hand.piece, face: hand.face_id, route: hand.route, step: hand.step } : {};
    if (await bench.tap({ kind: 'measured', measured, ...at })) value = null;
  }
</script>

{#snippet profile(measured: Measured, name: string)}
  {#if measured.kind === 'profile'}
    <div class="mt-2 grid gap-2">
      <ProfileChart
        profile={measured.profile as [number, number][]}
        bearing={measured.bearing as [number, number][]}
        label="{name}: Ra {shown.say(measured.Ra_um, 'roughness', 3)}"
      />
      <p class="small dim">
        Cut-off {shown.say(measured.lambda_c_mm, 'length', 3)}, Gaussian filter, form of degree {measured.form_degree}, {measured.sections}
        sections.
      </p>
      <button
        type="button"
        class="plain-button justify-self-start"
        onclick={() => {
          value = measured.Ra_um;
          by = { instrument: `profile ${name}`.slice(0, 60) + `, ${measured.lambda_c_mm} mm`, simulated: false };
        }}>Take its Ra of {shown.say(measured.Ra_um, 'roughness', 3)}</button
      >
    </div>
  {/if}
{/snippet}

<Dialog bind:open={() => open, (now) => now || onclose()} title="Measure">
  <form
    class="grid gap-3 text-lg"
    onsubmit={(event) => {
      event.preventDefault();
      if (understood(event.currentTarget)) void keep();
    }}
  >
    <Choice
      label="What"
      value={quantity}
      options={known.value?.quantities.map((one) => ({ id: one.id, label: one.label })) ?? []}
      onchange={(id: Reading['quantity']) => {
        quantity = id;
        value = null;
      }}
    />
    <div class="grid grid-cols-[1fr_auto] items-end gap-2">
      <NumberField label="Reading" {value} quantity={SHOWN[quantity]} onchange={typed} onclear={() => (value = null)} />
      {#each instruments as one (one.id)}
        <button type="button" class="plain-button" onclick={() => read(one.id)}
          >Read the {one.label.toLowerCase()}{one.simulated ? ' (simulated)' : ''}</button
        >
      {/each}
    </div>
    {#if quantity === 'size' || quantity === 'coat'}
      <div class="grid grid-cols-2 gap-2">
        <label
          ><span class="small dim block">Where</span><input
            class="field"
            list="positions"
            maxlength="80"
            bind:value={position}
          /></label
        >
        <label
          ><span class="small dim block">Which way</span><input
            class="field"
            list="directions"
            maxlength="80"
            bind:value={direction}
          /></label
        >
      </div>
      <datalist id="positions"><option>near end</option><option>middle</option><option>far end</option></datalist>
      <datalist id="directions"><option>first direction</option><option>at a right angle</option></datalist>
    {/if}
    {#if quantity === 'ra'}
      <MeasuredFile read={api.measure} shown={profile} />
    {/if}
    {#if by.simulated}<p class="dim">
        Simulated: it stands in for an instrument, proves nothing and teaches nothing.
      </p>{/if}
    <button class="main-button" disabled={value === null}>Keep the reading</button>
  </form>
  {#if bench.run.readings.length}
    <ul class="mt-4 grid gap-1 border-t border-(--line) pt-3" aria-label="Readings">
      {#each bench.run.readings.slice(0, 8) as one (one.number)}
        <li>
          {shown.tell(one.said)}
          {#if one.verdict}<b
              class="block"
              class:text-(--stop)={one.level !== 'fine'}
              class:text-(--go)={one.level === 'fine'}>{shown.tell(one.verdict)}</b
            >{/if}
        </li>
      {/each}
    </ul>
  {/if}
</Dialog>
