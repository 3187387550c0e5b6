<!-- The board: time goes down, a column for each person or machine and for what waits, a line for now. Blocks are dragged, or
moved with arrow keys. -->
<script lang="ts">
  import type { Block } from '../../api/client';
  import { clockAt, columnsOf, piecesOf, span, type Lane, type Piece } from '../../charts/board';
  import { shortLabel } from '../../charts/labels';
  import Scrolling from '../../ui/Scrolling.svelte';
  import JobLetter from './JobLetter.svelte';
  import type { Schedule } from './schedule.svelte';

  /** A flag in the last column: a job is ready, or due. */
  export interface Flag {
    id: string;
    job: string;
    minute: number;
    what: 'ready' | 'due';
  }
  interface Props {
    schedule: Schedule;
    lanes: Lane<Block>[];
    flags: Flag[];
    /** Minutes of every person's breaks, from the beginning of the shown day. */
    breaks: Map<string, [number, number][]>;
    begins: string;
    /** Minutes of the shown day's beginning since the board's, and of the day's length at least. */
    from: number;
    long: number;
    now: number | null;
    done: string[];
    onmove: (block: Block, from: number, person: string | null) => void;
  }
  let { schedule, lanes, flags, breaks, begins, from, long, now, done, onmove }: Props = $props();
  const uid = $props.id();
  const STEP = 5;
  const HOURS = 54;
  const WAITING = 104;
  const FLAGS = 128;
  const LEAST = 150;
  /** Two lines where machines are named: their end tells them apart. */
  const head = $derived(lanes.some((lane) => lane.kind === 'spindle') ? 52 : 34);
  const FOOT = 20;
  const LINE = 16;
  const FLAG = 23;
  let wide = $state(1000);
  let high = $state(600);
  const blocks = $derived(
    lanes.flatMap((lane) => lane.blocks).map((one) => ({ from_min: one.from_min - from, to_min: one.to_min - from })),
  );
  const [low, end] = $derived(span(blocks, long));
  /** A finger needs more than a mouse. */
  const touch = matchMedia('(pointer: coarse)').matches;
  const least = touch ? 44 : 24;
  const scale = $derived(Math.max(touch ? 1.35 : 1, (high - head - FOOT) / (end - low)));
  const y = (minute: number) => (minute - from - low) * scale;
  const hours = $derived(Array.from({ length: (end - low) / 60 + 1 }, (_, at) => low + 60 * at));
  const waiting = $derived(lanes.some((lane) => lane.kind === 'waiting'));
  const laneWide = $derived(
    Math.max(
      LEAST,
      (wide - HOURS - (waiting ? WAITING : 0) - (flags.length ? FLAGS : 0)) /
        Math.max(1, lanes.length - (waiting ? 1 : 0)),
    ),
  );
  const columns = $derived(
    [
      `${HOURS}px`,
      ...lanes.map((lane) => (lane.kind === 'waiting' ? `${WAITING}px` : `${laneWide}px`)),
      ...(flags.length ? [`${FLAGS}px`] : []),
    ].join(' '),
  );
  /** One below the other where they would cover each other. */
  const placed = $derived.by(() => {
    let last = -Infinity;
    return [...flags]
      .sort((a, b) => a.minute - b.minute)
      .map((flag) => {
        last = Math.max(y(flag.minute) - FLAG / 2, last + FLAG);
        return { flag, top: last };
      });
  });
  let drag = $state<{ block: Block; lane: number; startX: number; startY: number; dx: number; dy: number } | null>(
    null,
  );
  const over = (piece: Piece<Block>) => piece.blocks.every((one) => done.includes(one.key));
  const worked = (piece: Piece<Block>) => piece.blocks.filter((one) => one.kind === 'work');
  /** What is moved: its first block that is not done; nothing where all is. */
  const first = (piece: Piece<Block>) => worked(piece).find((one) => !done.includes(one.key));
  const jobsOf = (piece: Piece<Block>) => [...new Set(piece.blocks.map((one) => schedule.jobOf(one)))];

  /** The words on a piece: each job once, with what is done on it. */
  function saidOf(piece: Piece<Block>) {
    return jobsOf(piece).map((job) => {
      const mine = worked(piece).filter((one) => schedule.jobOf(one) === job);
      return {
        job,
        mark: schedule.marks.get(job),
        title: mine[0]?.job ?? piece.blocks[0]?.job ?? '',
        labels: [...new Set(mine.map((one) => shortLabel(one.label)))].join(', '),
      };
    });
  }

  /** Colours of a piece from top to bottom, each job with its minutes. */
  function strip(piece: Piece<Block>): string {
    let at = piece.from;
    const stops = piece.blocks.flatMap((one) => {
      const colour = schedule.marks.get(schedule.jobOf(one))?.colour ?? 'var(--dim)';
      const part = (minute: number) => `${(100 * (minute - piece.from)) / Math.max(1, piece.to - piece.from)}%`;
      const stop = [`${colour} ${part(at)}`, `${colour} ${part(one.to_min)}`];
      at = one.to_min;
      return stop;
    });
    return `linear-gradient(${stops.join(', ')})`;
  }

  /** What is not seen in the words of a piece: when it is, and whether it is late or kept here. */
  function whenOf(piece: Piece<Block>): string {
    const late = Math.max(...piece.blocks.map((one) => one.late_min ?? 0));
    return `, ${clockAt(piece.from, begins)} to ${clockAt(piece.to, begins)}${late ? `, late by ${late} minutes` : ''}${
      piece.blocks.some((one) => one.fixed) ? ', kept here' : ''
    }`;
  }

  const chosen = (piece: Piece<Block>) => piece.blocks.some((one) => one.key === schedule.selected);

  function choose(piece: Piece<Block>) {
    const block = first(piece) ?? worked(piece)[0] ?? piece.blocks[0];
    if (block && !chosen(piece))
      schedule.choose(
        block.key,
        worked(piece).map((one) => one.key),
      );
  }

  function release() {
    const held = drag;
    drag = null;
    if (!held || Math.hypot(held.dx, held.dy) < 6) return;
    const people = lanes.filter((lane) => lane.kind === 'person');
    const lane = people[Math.max(0, Math.min(people.length - 1, held.lane + Math.round(held.dx / laneWide)))];
    const to = Math.round((held.block.starts_min + held.dy / scale) / STEP) * STEP;
    onmove(held.block, to, lane?.label ?? held.block.person);
  }

  function keys(event: KeyboardEvent, piece: Piece<Block>, at: number) {
    const block = first(piece);
    const by = { ArrowUp: -STEP, ArrowDown: STEP }[event.key];
    const aside = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (!block || (by === undefined && aside === undefined)) return;
    event.preventDefault();
    event.stopPropagation();
    const lane = aside === undefined ? undefined : lanes[at + aside];
    if (by !== undefined) onmove(block, block.starts_min + by, block.person);
    else if (lane?.kind === 'person') onmove(block, block.starts_min, lane.label);
  }
</script>

<svelte:window
  onpointermove={(event) => {
    if (drag) drag = { ...drag, dx: event.clientX - drag.startX, dy: event.clientY - drag.startY };
  }}
  onpointerup={release}
/>

<div class="h-full min-h-96" bind:clientHeight={high}>
  <Scrolling label="Board" class="board h-full" bind:width={wide}>
    <div
      class="grid"
      style:grid-template-columns={columns}
      style:grid-template-rows="{head}px auto"
      style:min-width="max-content"
    >
      <div class="head corner"></div>
      {#each lanes as lane, at (lane.id)}<div class="head font-semibold" id="{uid}-{at}" title={lane.label}>
          {lane.label}
        </div>{/each}
      {#if flags.length}<div class="head font-semibold">Ready, due</div>{/if}
      <div class="hours relative" style:height="{(end - low) * scale + FOOT - 2}px" aria-hidden="true">
        {#each hours as minute (minute)}
          <span class="small dim num absolute right-2" style:top="{y(minute + from)}px">{clockAt(minute, begins)}</span>
        {/each}
      </div>
      {#each lanes as lane, at (lane.id)}
        <ul class="lane" aria-labelledby="{uid}-{at}">
          {#each hours as minute (minute)}<li
              class="hour"
              aria-hidden="true"
              style:top="{y(minute + from)}px"
            ></li>{/each}
          {#each breaks.get(lane.label) ?? [] as [begin, stop] (begin)}
            <li class="break small" style:top="{y(begin + from)}px" style:height="{(stop - begin) * scale}px">break</li>
          {/each}
          {#if lane.kind === 'waiting'}
            {@const stacked = columnsOf(lane.blocks, least / scale)}
            {@const many = Math.max(...stacked.map((one) => one.column)) + 1}
            {#each stacked as { block, column } (`${block.key}`)}
              <li
                class="wait"
                class:done={done.includes(block.key)}
                style:top="{y(block.from_min)}px"
                style:height="{Math.max(18, (block.to_min - block.from_min) * scale - 2)}px"
                style:left="{2 + (100 * column) / many}%"
                style:width="{96 / many}%"
                style:--job={schedule.markOf(block)?.colour}
                title="{block.job}: {block.label}, {clockAt(block.from_min, begins)} to {clockAt(block.to_min, begins)}"
              >
                <b>{schedule.markOf(block)?.letter}</b><span class="sr-only"
                  >{block.job}: {block.label}, {clockAt(block.from_min, begins)} to {clockAt(
                    block.to_min,
                    begins,
                  )}</span
                >
              </li>
            {/each}
          {:else}
            {#each piecesOf(lane.blocks, schedule.jobOf, least / scale) as piece (piece.id)}
              {@const said = saidOf(piece)}
              {@const held = drag && piece.blocks.includes(drag.block) ? drag : null}
              <li>
                <button
                  class="block"
                  class:done={over(piece)}
                  class:chosen={chosen(piece)}
                  class:late={piece.blocks.some((one) => (one.late_min ?? 0) > 0)}
                  style:top="{y(piece.from) + (held?.dy ?? 0)}px"
                  style:translate="{held?.dx ?? 0}px"
                  style:height="{Math.max(least, (piece.to - piece.from) * scale) - 2}px"
                  style:--job={said.length === 1 ? said[0]?.mark?.colour : 'var(--raised)'}
                  aria-pressed={chosen(piece)}
                  onclick={() => choose(piece)}
                  onkeydown={(event) => keys(event, piece, at)}
                  onpointerdown={(event) => {
                    const block = first(piece);
                    if (lane.kind === 'person' && block && event.pointerType !== 'touch')
                      drag = { block, lane: at, startX: event.clientX, startY: event.clientY, dx: 0, dy: 0 };
                  }}
                >
                  <i class="strip" style:background={strip(piece)}></i>
                  <span
                    class="words"
                    style:-webkit-line-clamp={Math.max(
                      1,
                      Math.floor((Math.max(least, (piece.to - piece.from) * scale) - 5) / LINE),
                    )}
                    >{#each said as one, number (one.job)}{number ? '; ' : ''}<b>{one.mark?.letter} {one.title}</b>
                      {one.labels}{/each}<span class="sr-only">{whenOf(piece)}</span></span
                  >
                </button>
              </li>
            {/each}
          {/if}
          {#if now !== null}<li class="now" aria-hidden="true" style:top="{y(now)}px"></li>{/if}
        </ul>
      {/each}
      {#if flags.length}
        <ul class="lane" aria-label="Ready and due">
          {#each placed as { flag, top } (flag.id)}
            <li class="flag small num" class:due={flag.what === 'due'} style:top="{top}px">
              <JobLetter mark={schedule.marks.get(flag.job)} />
              {clockAt(flag.minute, begins)}
              {flag.what}
            </li>
          {/each}
          {#if now !== null}<li class="now" style:top="{y(now)}px">
              <b class="small num">now {clockAt(now, begins)}</b>
            </li>{/if}
        </ul>
      {/if}
    </div>
  </Scrolling>
</div>

<style>
  .head {
    position: sticky;
    top: 0;
    z-index: 4;
    overflow: hidden;
    padding: 6px 8px;
    line-height: 1.2;
    border-bottom: 1px solid var(--line);
    border-left: 1px solid var(--line);
    background: var(--card);
  }
  .hours,
  .corner {
    position: sticky;
    left: 0;
    z-index: 5;
    border-left: 0;
    background: var(--card);
  }
  .corner {
    z-index: 6;
  }
  .lane {
    position: relative;
    border-left: 1px solid var(--line);
  }
  .hour {
    position: absolute;
    right: 0;
    left: 0;
    height: 1px;
    background: var(--line);
    opacity: 0.6;
  }
  .break {
    position: absolute;
    right: 4px;
    left: 4px;
    display: grid;
    place-items: center;
    border-radius: 5px;
    background: var(--paper);
    color: var(--dim);
  }
  .block {
    position: absolute;
    right: 4px;
    left: 4px;
    z-index: 1;
    display: flex;
    overflow: hidden;
    border: 1px solid color-mix(in oklab, var(--job), var(--line) 50%);
    border-radius: 6px;
    background: color-mix(in oklab, var(--job), var(--card) 80%);
    text-align: left;
    font-size: 0.85rem;
    cursor: grab;
  }
  .strip {
    flex: none;
    width: 5px;
  }
  .words {
    min-width: 0;
    display: -webkit-box;
    overflow: hidden;
    align-self: flex-start;
    margin: 2px 6px;
    overflow-wrap: anywhere;
    line-height: 16px;
    -webkit-box-orient: vertical;
  }
  .wait {
    position: absolute;
    z-index: 1;
    overflow: hidden;
    padding-left: 3px;
    border: 1px dashed var(--job);
    border-radius: 5px;
    background: repeating-linear-gradient(
      45deg,
      var(--card) 0 5px,
      color-mix(in oklab, var(--job), var(--card) 75%) 5px 9px
    );
    font-size: 0.8rem;
    line-height: 1.2;
  }
  .done {
    opacity: 0.5;
  }
  .chosen {
    outline: 3px solid var(--ink);
    outline-offset: -1px;
  }
  .late {
    border-color: var(--stop);
    box-shadow: inset 0 -3px var(--stop);
  }
  .flag {
    position: absolute;
    left: 5px;
    z-index: 1;
    display: flex;
    align-items: center;
    gap: 0.35rem;
    white-space: nowrap;
  }
  .due {
    color: var(--dim);
  }
  .due :global(b) {
    border-style: dashed;
  }
  .now {
    position: absolute;
    right: 0;
    left: 0;
    z-index: 2;
    height: 2px;
    background: var(--stop);
    pointer-events: none;
  }
  .now b {
    position: absolute;
    right: 4px;
    bottom: 2px;
    border-radius: 4px;
    background: var(--stop);
    color: var(--card);
    padding: 0 5px;
  }
  @media print {
    .block {
      font-size: 0.7rem;
    }
  }
</style>
