<!-- The board: a row for each person, spindle and what waits, time across, a line for now. Blocks are dragged, or moved with arrow keys. -->
<script lang="ts">
  import type { Block } from '../../api/client';
  import { clockAt, span, type BoardRow } from '../../charts/board';
  import { temperColour } from '../../charts/temper';
  import Scrolling from '../../ui/Scrolling.svelte';

  interface Props {
    rows: BoardRow<Block>[];
    begins: string;
    /** Minutes of the shown day's beginning since the board's, and of the day's length at least. */
    from: number;
    long: number;
    now: number | null;
    selected: string | null;
    done: string[];
    onselect: (key: string) => void;
    onmove: (block: Block, from: number, person: string | null) => void;
  }
  let { rows, begins, from, long, now, selected, done, onselect, onmove }: Props = $props();
  const STEP = 5;
  const LABEL = 150;
  /** Room for half of the last hour's words. */
  const END = 24;
  let wide = $state(1000);
  const blocks = $derived(
    rows
      .flatMap((row) => row.blocks)
      .map((one) => ({ ...one, from_min: one.from_min - from, to_min: one.to_min - from })),
  );
  const [low, high] = $derived(span(blocks, long));
  const scale = $derived(Math.max(0.6, (wide - LABEL - END - 2) / (high - low)));
  const x = (minute: number) => LABEL + (minute - from - low) * scale;
  const hours = $derived(Array.from({ length: (high - low) / 60 + 1 }, (_, at) => low + 60 * at));
  let drag = $state<{ block: Block; startX: number; startY: number; dx: number; dy: number } | null>(null);

  function colour(block: Block): string {
    if (block.kind === 'wait') return 'transparent';
    if (block.kind === 'change') return 'var(--ink)';
    return block.grain_um === null ? 'var(--dim)' : temperColour(block.grain_um);
  }

  /** Minutes in which its wheel is put on first. */
  const lead = (block: Block) => block.from_min - block.starts_min;

  function release() {
    const held = drag;
    drag = null;
    if (!held || Math.hypot(held.dx, held.dy) < 6) return;
    const at = rows.findIndex((row) => row.blocks.some((one) => one === held.block));
    const row = rows[Math.max(0, Math.min(rows.length - 1, at + Math.round(held.dy / 44)))];
    const person = row?.kind === 'person' ? row.label : held.block.person;
    const to = Math.round((held.block.from_min + held.dx / scale) / STEP) * STEP;
    onmove(held.block, to - lead(held.block), person);
  }

  function keys(event: KeyboardEvent, block: Block) {
    const by = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    onmove(block, block.starts_min + by, block.person);
  }
</script>

<svelte:window
  onpointermove={(event) => {
    if (drag) drag = { ...drag, dx: event.clientX - drag.startX, dy: event.clientY - drag.startY };
  }}
  onpointerup={release}
/>

<Scrolling label="Board" class="board panel" bind:width={wide}>
  <div class="relative" style:width="{x(high + from) + END}px">
    <div class="relative h-7" aria-hidden="true">
      {#each hours as minute (minute)}
        <span class="small dim num absolute top-1 -translate-x-1/2 whitespace-nowrap" style:left="{x(minute + from)}px"
          >{clockAt(minute, begins)}</span
        >
      {/each}
    </div>
    <ul>
      {#each rows as row (row.id)}
        <li class="row relative" aria-label={row.label}>
          <span class="label small" class:font-semibold={row.kind === 'person'}>{row.label}</span>
          {#each hours as minute (minute)}<i class="hour" style:left="{x(minute + from)}px"></i>{/each}
          {#each row.blocks as block (`${block.key} ${block.kind}`)}
            {@const held = drag?.block === block}
            <button
              class="block"
              class:wait={block.kind === 'wait'}
              class:change={block.kind === 'change'}
              class:done={done.includes(block.key)}
              class:chosen={block.key === selected}
              class:late={block.late_min > 0}
              style:left="{x(block.from_min) + (held ? (drag?.dx ?? 0) : 0)}px"
              style:top="{4 + (held ? (drag?.dy ?? 0) : 0)}px"
              style:width="{Math.max(3, (block.to_min - block.from_min) * scale - 1)}px"
              style:--colour={colour(block)}
              aria-label="{block.job}, {block.kind === 'change'
                ? 'put on '
                : ''}{block.label}, {block.at} for {block.to_min - block.from_min} minutes{block.late_min
                ? `, late by ${block.late_min}`
                : ''}{block.fixed ? ', put there' : ''}"
              aria-pressed={block.key === selected}
              title="{block.job}: {block.label}"
              onclick={() => onselect(block.key)}
              onkeydown={(event) => keys(event, block)}
              onpointerdown={(event) => {
                if (row.kind === 'person' && block.kind === 'work')
                  drag = { block, startX: event.clientX, startY: event.clientY, dx: 0, dy: 0 };
              }}
            >
              <span class="truncate"
                >{block.kind === 'change' ? '' : row.kind === 'person' ? block.job : block.label}</span
              >
            </button>
          {/each}
        </li>
      {/each}
    </ul>
    {#if now !== null}<i class="now" style:left="{x(now)}px" title="now"></i>{/if}
  </div>
</Scrolling>

<style>
  .row {
    height: 44px;
    border-top: 1px solid var(--line);
  }
  .label {
    position: sticky;
    left: 0;
    z-index: 2;
    display: grid;
    width: 148px;
    height: 100%;
    align-items: center;
    background: var(--card);
    padding: 0 8px;
    line-height: 1.1;
  }
  .hour {
    position: absolute;
    top: 0;
    bottom: 0;
    width: 1px;
    background: var(--line);
    opacity: 0.6;
  }
  .block {
    position: absolute;
    z-index: 1;
    display: flex;
    height: 36px;
    align-items: center;
    overflow: hidden;
    border-radius: 5px;
    border: 1px solid color-mix(in oklab, var(--colour), var(--ink) 35%);
    background: color-mix(in oklab, var(--colour), var(--card) 72%);
    border-left: 5px solid var(--colour);
    padding: 0 4px;
    font-size: 0.75rem;
    line-height: 1.1;
    text-align: left;
    cursor: grab;
    touch-action: none;
  }
  .wait {
    border: 1px dashed var(--dim);
    background: repeating-linear-gradient(
      45deg,
      transparent 0 5px,
      color-mix(in oklab, var(--dim), transparent 70%) 5px 7px
    );
  }
  .change {
    padding: 0;
    border-left-width: 1px;
    background: var(--ink);
  }
  .done {
    opacity: 0.4;
  }
  .chosen {
    outline: 3px solid var(--ink);
    outline-offset: 1px;
  }
  .late {
    border-color: var(--stop);
    box-shadow: inset 0 -4px var(--stop);
  }
  .now {
    position: absolute;
    top: 0;
    bottom: 0;
    z-index: 3;
    width: 2px;
    background: var(--stop);
    pointer-events: none;
  }
</style>
