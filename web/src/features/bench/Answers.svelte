<!-- Start, and then the three answers. -->
<script lang="ts">
  import type { Hand, Run } from '../../api/client';
  import { clock, duration } from '../../units/units';

  interface Props {
    run: Run;
    hand: Hand;
    seconds: number;
    ready: boolean;
    onstart: () => void;
    ongone: () => void;
    onmore: () => void;
    onback: () => void;
  }
  let { run, hand, seconds, ready, onstart, ongone, onmore, onback }: Props = $props();
  const then = $derived.by(() => {
    const next = run.strip.find((one) => one.state === 'next');
    if (run.order === 'step' && run.pieces > 1 && hand.piece < run.pieces) return 'the next piece';
    return next ? next.label : 'what comes next';
  });
</script>

<div class="answers" role="group" aria-label="Answers">
  {#if hand.begun}
    <button class="go" disabled={!ready} onclick={ongone}>
      <b>Old marks gone</b><span><kbd>Space</kbd> logs {clock(seconds)}, then {then}</span>
    </button>
    <button class="more" disabled={!ready} onclick={onmore}>
      <b>Still some, keep going</b><span><kbd>K</kbd> adds {duration(hand.more_by_s / 60)}</span>
    </button>
    <button class="back" disabled={!ready} onclick={onback}>
      <b>Found a deep one</b><span><kbd>G</kbd> works out how far back</span>
    </button>
  {:else}
    <button class="go" disabled={!ready} onclick={onstart}>
      <b>{hand.seconds > 1 ? 'Go on with this step' : 'Start this step'}</b><span
        ><kbd>Space</kbd> when the tool is on and you are ready: the clock runs then</span
      >
    </button>
  {/if}
</div>

<style>
  .answers {
    display: grid;
    grid-auto-flow: column;
    grid-template-columns: 1.5fr;
    grid-auto-columns: 1fr;
    gap: 14px;
  }
  button {
    display: flex;
    flex-direction: column;
    justify-content: space-between;
    min-height: 7.6rem;
    padding: 0.9rem 1.4rem;
    border-radius: 12px;
    text-align: left;
    color: #fff;
    cursor: pointer;
  }
  button:disabled {
    opacity: 0.55;
    cursor: default;
  }
  @media (max-height: 640px) {
    .answers {
      position: sticky;
      bottom: 0.5rem;
    }
    button {
      min-height: 4.6rem;
      padding: 0.5rem 1rem;
    }
  }
  b {
    font-size: clamp(1.2rem, 2.4vw, 1.75rem);
    line-height: 1.15;
  }
  span {
    font-size: 1.1rem;
  }
  kbd {
    border: 1px solid currentColor;
    border-radius: 5px;
    padding: 0 7px;
    margin-right: 4px;
  }
  .go {
    background: #2f6f4f;
  }
  .more {
    background: #3b3d45;
  }
  .back {
    background: #8f3a2b;
  }
</style>
