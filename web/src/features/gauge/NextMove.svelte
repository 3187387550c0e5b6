<!-- The next move in large type: what, how long, why; the clock while it is worked; and a stop that nobody overlooks. -->
<script lang="ts">
  import type { SizeAnswer } from '../../api/client';
  import { shown } from '../../units/shown.svelte';
  import { MOVES, works } from '../../ui/moves';
  import { clock } from '../../units/units';

  interface Props {
    answer: SizeAnswer | null;
    tool: string;
    began: number | null;
    onstart: () => void;
    onstop: () => void;
    onread: () => void;
    onfiner: () => void;
  }
  let { answer, tool, began, onstart, onstop, onread, onfiner }: Props = $props();
  let now = $state(performance.now());
  $effect(() => {
    if (began === null) return;
    const ticking = setInterval(() => (now = performance.now()), 200);
    return () => clearInterval(ticking);
  });
  const move = $derived(answer?.next.move ?? 'measure');
  const elapsed = $derived(began === null ? 0 : Math.max(0, (now - began) / 1000));
  const working = $derived(works(move));
  const over = $derived(began !== null && answer !== null && elapsed >= answer.next.seconds);
</script>

<section
  class="rounded-xl border-2 p-5 {move === 'stop' || over || move === 'not-possible' || move === 'cut-again'
    ? 'stopped'
    : 'border-(--line) bg-(--card)'}"
  aria-label="Next move"
  aria-live="polite"
>
  <p class="small dim">{began === null ? 'Next' : 'At work'}</p>
  <p class="text-5xl leading-tight font-bold" data-testid="move">
    {over ? 'Stop' : MOVES[move](tool)}
    {#if working && !over}<span class="num">{clock(began === null ? (answer?.next.seconds ?? 0) : elapsed)}</span>{/if}
  </p>
  {#if began !== null && answer}<p class="num text-xl">of {clock(answer.next.seconds)}</p>{/if}
  <p class="mt-2 text-lg">
    {answer
      ? shown.tell(answer.next.reason_said)
      : 'Read it in the middle and near both ends, in four directions each.'}
  </p>
  <div class="mt-4 flex flex-wrap gap-3">
    {#if began !== null}
      <button class="main-button min-h-14 px-8 text-xl" onclick={onstop}>Stopped, now read <kbd>Space</kbd></button>
    {:else if working}
      <button class="main-button min-h-14 px-8 text-xl" onclick={onstart}>Start <kbd>Space</kbd></button>
      <button class="plain-button min-h-14" onclick={onread}>Read again first <kbd>R</kbd></button>
    {:else if move === 'finer'}
      <button class="main-button min-h-14 px-6 text-lg" onclick={onfiner}>The finer one is in hand</button>
      <button class="plain-button min-h-14" onclick={onread}>Read again <kbd>R</kbd></button>
    {:else if move !== 'not-possible' && move !== 'cut-again'}
      <button class="{move === 'stop' ? 'plain-button' : 'main-button'} min-h-14 px-6 text-lg" onclick={onread}
        >{move === 'stop' ? 'Read once more' : 'Read it'} <kbd>R</kbd></button
      >
    {:else}
      <button class="plain-button min-h-14" onclick={onread}>Read again <kbd>R</kbd></button>
    {/if}
  </div>
</section>

<style>
  .stopped {
    border-color: var(--stop);
    background: color-mix(in oklab, var(--card), var(--stop) 14%);
  }
</style>
