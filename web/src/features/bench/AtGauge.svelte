<!-- A face by the gauge: the next move in large type with its time and reason, and what to tap; a stop that nobody overlooks. -->
<script lang="ts">
  import type { Hand } from '../../api/client';
  import { MOVES, works } from '../../ui/moves';
  import { shown } from '../../units/shown.svelte';
  import { clock } from '../../units/units';

  interface Props {
    hand: Hand;
    size: NonNullable<Hand['size']>;
    /** Seconds since the tool was set on, by this page's clock. */
    running: number;
    /** What comes after this step, in words. */
    then: string;
    ready: boolean;
    /** Readings that were asked for are enough. */
    enough: boolean;
    onstart: () => void;
    onstop: () => void;
    onread: () => void;
    onnext: () => void;
  }
  let { hand, size, running, then, ready, enough, onstart, onstop, onread, onnext }: Props = $props();
  const next = $derived(size.answer?.next);
  const move = $derived(next?.move ?? 'measure');
  const asks = $derived(!hand.running && !enough && size.to_read.length > 0);
  const over = $derived(hand.running && next !== undefined && running >= next.seconds);
  const ends = $derived(move === 'stop' || move === 'finer');
  const loud = $derived(over || (!asks && !hand.running && ['stop', 'not-possible', 'cut-again'].includes(move)));
  const head = $derived(
    over ? 'Stop' : hand.running ? 'At work' : asks ? `Read it: ${size.to_read.length} places` : MOVES[move]('lap'),
  );
  const why = $derived(
    asks
      ? size.answer
        ? 'Washed and cool, where it is tightest, in the middle and near both ends.'
        : 'Clean, at the temperature of the gauge, before any work.'
      : next
        ? shown.tell(next.reason_said)
        : '',
  );
</script>

<div class="gauge" class:loud role="group" aria-label="Next move" aria-live="polite">
  <p class="move">
    <b data-testid="move">{head}</b>
    {#if hand.running && next}<span class="num">{clock(running)} of {clock(next.seconds)}</span>
    {:else if !asks && next && works(move)}<span class="num">{clock(next.seconds)}</span>{/if}
    <small>{why}</small>
  </p>
  <div class="taps">
    {#if hand.running}
      <button class="go" disabled={!ready} onclick={onstop}>Stopped, now read <kbd>Space</kbd></button>
    {:else if asks}
      <button class="go" disabled={!ready} onclick={onread}>Read <kbd>Space</kbd></button>
    {:else if works(move)}
      <button class="go" disabled={!ready} onclick={onstart}>Start <kbd>Space</kbd></button>
      <button class="more" disabled={!ready} onclick={onread}>Read again <kbd>M</kbd></button>
    {:else if ends}
      <button class="go" disabled={!ready} onclick={onnext}>On to {then} <kbd>Space</kbd></button>
      <button class="more" disabled={!ready} onclick={onread}>Read again <kbd>M</kbd></button>
    {:else}
      <button class="go" disabled={!ready} onclick={onread}>Read again <kbd>Space</kbd></button>
    {/if}
  </div>
</div>

<style>
  .gauge {
    display: grid;
    grid-template-columns: minmax(0, 1.6fr) minmax(0, 1fr);
    gap: 14px;
    flex-shrink: 0;
    border: 3px solid var(--line);
    border-radius: 12px;
    background: var(--card);
    padding: 0.6rem 1rem;
  }
  .loud {
    border-color: #a8321f;
    background: #a8321f;
    color: #fff;
  }
  .move b {
    font-size: clamp(1.7rem, 4vw, 3rem);
    line-height: 1.1;
  }
  .move span {
    margin-left: 0.5rem;
    font-size: clamp(1.4rem, 3vw, 2.3rem);
    font-weight: 650;
  }
  .move small {
    display: block;
    font-size: 1.1rem;
    line-height: 1.3;
  }
  .taps {
    display: grid;
    grid-auto-flow: column;
    grid-auto-columns: 1fr;
    gap: 10px;
  }
  button {
    min-height: 4.6rem;
    border-radius: 12px;
    padding: 0.5rem 0.8rem;
    color: #fff;
    font-size: clamp(1.05rem, 2vw, 1.4rem);
    font-weight: 700;
    cursor: pointer;
  }
  button:disabled {
    opacity: 0.55;
  }
  kbd {
    border: 1px solid currentColor;
    border-radius: 5px;
    padding: 0 7px;
    font-size: 0.8em;
  }
  .go {
    background: #2f6f4f;
  }
  .more {
    background: #3b3d45;
  }
  @media (max-height: 560px) {
    .gauge {
      padding: 0.3rem 0.6rem;
    }
    button {
      min-height: 3.4rem;
    }
    .move small {
      font-size: 0.9rem;
      line-height: 1.15;
    }
  }
</style>
