<!-- Readings one after the other, where they are asked for: a pad for gloves, or a gauge that the program reads itself. -->
<script lang="ts">
  import { api, type Hand, type Measuring } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import NumberPad from '../../ui/NumberPad.svelte';
  import { placeWords, sizeText } from '../../ui/moves';
  import { notices } from '../../ui/notices.svelte';
  import { shown } from '../../units/shown.svelte';
  import type { BenchRun } from './run.svelte';

  interface Props {
    bench: BenchRun;
    size: NonNullable<Hand['size']>;
    open: boolean;
    onclose: () => void;
    onenough: () => void;
  }
  let { bench, size, open, onclose, onenough }: Props = $props();
  const known = new Answer<Measuring>();
  const gauges = $derived(known.value?.instruments.filter((one) => one.quantity === 'size') ?? []);
  const place = $derived(size.to_read[0] ?? size.answer?.places[0] ?? { z_mm: 0, phi_deg: 0 });
  const near = $derived(size.readings.at(-1)?.mm ?? size.limits_mm[0]);
  const doubtful = $derived(size.answer?.doubtful != null);

  $effect(() => {
    if (open && !known.value) known.ask(api.measuring());
  });

  async function take(mm: number, by = { instrument: '', simulated: false }) {
    const measured = { quantity: 'size' as const, value: mm, position: '', direction: '', ...place, ...by };
    if ((await bench.work('measured', { measured })) && size.to_read.length === 0) onclose();
  }

  async function read(id: string) {
    try {
      const reading = await api.readInstrument(bench.run.id, id);
      await take(reading.value, { instrument: reading.instrument, simulated: reading.simulated });
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }
</script>

<Dialog
  bind:open={() => open, (now) => now || onclose()}
  title="Read the size"
  focus={() => document.querySelector('[data-pad]')}
>
  <p class="small dim" data-testid="count">
    {size.to_read.length ? `Reading ${size.read + 1} of ${size.read + size.to_read.length}` : 'One more reading'}
  </p>
  <p class="mb-2 text-2xl font-bold">{placeWords(place.z_mm, size.length_mm)}, at {Math.round(place.phi_deg)}°</p>
  {#if doubtful}
    <p class="mb-2 rounded-lg border border-(--stop) p-2 font-semibold" role="alert">
      {sizeText(near, shown.system)}
      {shown.unit('length')} cannot be right beside the others: undo it and read it again.
    </p>
  {/if}
  <div class="grid gap-4 sm:grid-cols-[auto_minmax(8rem,1fr)]">
    {#if open}<NumberPad {near} ontake={(mm) => void take(mm)} />{/if}
    <div class="flex flex-col gap-2">
      {#each gauges as one (one.id)}
        <button class="plain-button min-h-12" onclick={() => void read(one.id)}
          >Read the {one.label.toLowerCase()}{one.simulated ? ' (simulated)' : ''}</button
        >
      {/each}
      <button class="plain-button min-h-12" disabled={!size.readings.length} onclick={() => void bench.undo()}
        >Undo</button
      >
      <button class="plain-button min-h-12" disabled={!size.readings.length} onclick={onenough}>Enough</button>
    </div>
  </div>
</Dialog>
