<!-- Every step is done, or the run is over: how it came out, what is left around it, and where the log is. -->
<script lang="ts">
  import WhatNext from './WhatNext.svelte';
  import { p } from '../../app/router';
  import { shown } from '../../units/shown.svelte';
  import type { BenchRun } from './run.svelte';

  interface Props {
    bench: BenchRun;
    onopen: (sheet: 'measure' | 'photo' | 'note' | 'around') => void;
  }
  let { bench, onopen }: Props = $props();
  const run = $derived(bench.run);
  const left = $derived(run.waiting.filter((one) => !one.done && one.operation.when === 'after'));
  const reading = $derived(run.readings.find((one) => one.number === run.last?.number));
  const OVER = { finished: 'Finished', stopped: 'Stopped', open: 'Every step is done' };
</script>

<section class="m-auto grid w-full max-w-3xl gap-5 text-xl" aria-label="End of the run">
  <p class="dim">{run.title}, {run.pieces} {run.pieces === 1 ? 'piece' : 'pieces'}</p>
  <h1 class="!text-5xl">
    {OVER[run.status]}{run.status === 'finished' ? (run.well ? ', as wanted' : ', not as wanted') : ''}
  </h1>
  {#if left.length}
    <p>
      Still to do: {left.map((one) => one.operation.label.toLowerCase()).join(', ')}.
      <button class="underline" onclick={() => onopen('around')}>Timers</button>
    </p>
  {/if}
  {#if reading?.verdict}<p class:text-(--stop)={reading.level !== 'fine'}>{shown.tell(reading.verdict)}</p>{/if}
  {#if run.status === 'open'}
    <p>Compare it beside an untouched or a finished piece, under the same light. Did it come out as wanted?</p>
    <div class="grid grid-cols-2 gap-4">
      <button class="big yes" disabled={!bench.ready} onclick={() => bench.tap({ kind: 'finished', well: true })}
        >As wanted</button
      >
      <button class="big no" disabled={!bench.ready} onclick={() => bench.tap({ kind: 'finished', well: false })}
        >Not as wanted</button
      >
    </div>
  {:else}
    <a
      class="main-button justify-self-start !px-6 !py-4 !text-xl"
      href={p('/log/:id', { params: { id: String(run.id) } })}>To the log of this run</a
    >
    <WhatNext />
  {/if}
  <div class="flex flex-wrap gap-2">
    <button class="plain-button min-h-14" onclick={() => onopen('measure')}>Measure <kbd>M</kbd></button>
    <button class="plain-button min-h-14" onclick={() => onopen('photo')}>Photo <kbd>F</kbd></button>
    <button class="plain-button min-h-14" onclick={() => onopen('note')}>Note <kbd>N</kbd></button>
    <button class="plain-button min-h-14" disabled={!run.last} onclick={() => bench.undo()}
      >Undo: {shown.tell(run.last?.said)} <kbd>Z</kbd></button
    >
  </div>
</section>

<style>
  .big {
    min-height: 8rem;
    border-radius: 12px;
    color: #fff;
    font-size: 1.9rem;
    font-weight: 700;
    cursor: pointer;
  }
  .yes {
    background: #2f6f4f;
  }
  .no {
    background: #3b3d45;
  }
</style>
