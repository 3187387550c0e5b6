<!-- Start, and then the three answers. -->
<script lang="ts">
  import type { Hand, Run } from '../../api/client';
  import { clock } from '../../units/units';

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
      <b>Still some, keep going</b><span><kbd>K</kbd> adds {clock(hand.more_by_s)}</span>
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
    gap: 0.2rem;
    min-height: 7rem;
    padding: 0.8rem 1.3rem;
    border-radius: 12px;
    text-align: left;
    color: #fff;
    cursor: pointer;
  }
  button:disabled {
    opacity: 0.55;
    cursor: default;
  }
  .answers {
    position: sticky;
    bottom: 0;
    flex-shrink: 0;
  }
  @media (max-height: 800px) {
    button {
      min-height: 5.6rem;
      padding: 0.6rem 1.1rem;
    }
  }
  @media (max-height: 560px) {
    .answers {
      gap: 8px;
    }
    button {
      min-height: 3.9rem;
      padding: 0.3rem 0.8rem;
    }
    button b {
      font-size: 1.1rem;
    }
    button span {
      font-size: 0.87rem;
      line-height: 1.15;
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
