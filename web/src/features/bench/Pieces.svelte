<!-- Every piece of the batch with how far it is; all pieces per step, or one piece through, with what that costs. -->
<script lang="ts">
  import type { Run } from '../../api/client';
  import { difference } from '../../units/units';

  interface Props {
    run: Run;
    onpick: (piece: number) => void;
    onorder: (order: Run['order']) => void;
  }
  let { run, onpick, onorder }: Props = $props();
  const other = $derived(run.orders.find((one) => one.order !== run.order));
  const same = $derived(run.orders.find((one) => one.order === run.order));
  let row = $state<HTMLElement>();
  // In a large batch the piece in hand is scrolled to.
  $effect(() => {
    const at = (run.hand?.piece ?? 1) - 1;
    row?.children[at]?.scrollIntoView({ block: 'nearest', inline: 'center' });
  });
  const costs = $derived.by(() => {
    if (!other || !same) return '';
    const changes = other.changes - same.changes;
    const minutes = other.minutes - same.minutes;
    const some = changes === 0 ? 'as many' : `${Math.abs(changes)} ${changes > 0 ? 'more' : 'fewer'}`;
    return `${some} ${Math.abs(changes) === 1 ? 'change' : 'changes'}, ${difference(minutes)}`;
  });
</script>

{#if run.pieces > 1}
  <div class="flex min-w-0 flex-1 items-stretch gap-2" role="group" aria-label="Pieces">
    <div class="flex min-w-0 gap-1.5 overflow-x-auto" bind:this={row}>
      {#each run.each as one (one.piece)}
        <button
          class="chip"
          class:now={one.piece === run.hand?.piece}
          disabled={one.face === null}
          aria-pressed={one.piece === run.hand?.piece}
          onclick={() => onpick(one.piece)}
        >
          <b><span class="sr-only">Piece </span>{one.piece}</b>
          <span
            >{one.face === null ? 'through' : `${one.done}/${one.of}`}<span class="sr-only"> steps</span>{one.backs
              ? ' ↺'
              : ''}{#if one.backs}<span class="sr-only"> went back {one.backs} times</span>{/if}</span
          >
        </button>
      {/each}
    </div>
    {#if other}
      <button class="chip wide" onclick={() => onorder(other.order)}>
        <b>{other.label} <kbd>O</kbd></b><span>{costs}</span>
      </button>
    {/if}
  </div>
{/if}

<style>
  .chip {
    display: flex;
    min-width: 4.3rem;
    min-height: 64px;
    flex-direction: column;
    align-items: center;
    justify-content: center;
    border: 2px solid var(--line);
    border-radius: 10px;
    background: var(--card);
    padding: 0 0.6rem;
    cursor: pointer;
  }
  .chip.now {
    border-color: var(--ink);
    background: var(--raised);
  }
  .chip:disabled {
    color: var(--go);
    cursor: default;
  }
  .chip b {
    font-size: 1.25rem;
    line-height: 1.1;
  }
  .chip.wide {
    flex-shrink: 0;
    width: 12.5rem;
    white-space: normal;
    align-items: flex-start;
    text-align: left;
  }
  .chip.wide span {
    max-width: 100%;
  }
  @media (max-height: 560px) {
    .chip {
      min-width: 3.4rem;
      min-height: 48px;
    }
    .chip.wide {
      width: 9.5rem;
    }
    .chip.wide span {
      display: none;
    }
  }
  .chip.wide b {
    font-size: 1.05rem;
  }
  kbd {
    border: 1px solid currentColor;
    border-radius: 4px;
    padding: 0 4px;
    font-size: 0.72rem;
  }
  .chip span {
    font-size: 0.9rem;
    line-height: 1.15;
    color: var(--dim);
  }
</style>
