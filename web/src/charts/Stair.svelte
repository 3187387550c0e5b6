<!-- The descent: see stair.ts for where everything stands. Real text, and a table of the same figures stands beside it. -->
<script lang="ts">
  import { shown } from '../units/shown.svelte';
  import { figures, unitScale } from '../units/units';
  import { layOutStair, stepAt, type Span, type StairStep } from './stair';
  import { temperColour } from './temper';

  interface Props {
    steps: StairStep[];
    wantedUm: number | null;
    wantedLowUm: number | null;
    wantedLabel: string;
    /** Depth of the rest of the face, where spots are worked first. */
    restUm?: number | null;
    /** How deep the marks were found, where there are no steps yet. */
    foundUm?: number | null;
    foundLabel?: string;
    /** What stands on the discs instead of 1, 2, 3; then there are no labels beside them. */
    numbers?: number[];
    /** The scale of depths that it shares with other stairs. */
    span?: Span;
    selected: number;
    onselect: (at: number) => void;
  }
  let {
    steps,
    wantedUm,
    wantedLowUm,
    wantedLabel,
    restUm = null,
    foundUm = null,
    foundLabel = '',
    numbers,
    span,
    selected,
    onselect,
  }: Props = $props();
  let width = $state(700);
  let height = $state(420);
  const umPerTick = $derived(unitScale('depth', shown.system));
  const stair = $derived(
    layOutStair(steps, width, height, { wantedUm, wantedLowUm, restUm, foundUm, umPerTick, span }),
  );
  /** Drawn first, so that names and marks stand before its frame. */
  const chosen = $derived(stair.treads[selected]);

  function point(event: MouseEvent & { currentTarget: SVGElement }) {
    const at = stepAt(stair, event.clientX - event.currentTarget.getBoundingClientRect().left);
    if (at !== null) onselect(at);
  }
</script>

<div class="h-full min-h-0 w-full" bind:clientWidth={width} bind:clientHeight={height}>
  <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions (arrows walk the steps) -->
  <svg
    {width}
    {height}
    role="img"
    aria-label="The descent: minutes across, deepest marks left downwards"
    onclick={point}
  >
    <text x="12" y="18" class="axis">Deepest marks left, {shown.unit('depth')}</text>
    {#each stair.depthTicks as tick (tick.value)}
      <line x1={stair.left} x2={stair.right} y1={tick.y} y2={tick.y} class="grid" />
      <text x={stair.left - 8} y={tick.y + 4} text-anchor="end" class="tick">{shown.bare(tick.value, 'depth')}</text>
    {/each}
    {#if stair.wantedY !== null}
      <rect
        x={stair.left}
        y={stair.wantedY}
        width={stair.right - stair.left}
        height={stair.wantedBottom - stair.wantedY}
        class="wanted"
      />
      <text x={stair.left + 8} y={Math.min(stair.wantedY + 17, stair.bottom - 5)} class="wanted-label"
        >{wantedLabel}</text
      >
    {/if}
    {#if stair.foundY !== null}
      <path d="M{stair.left},{stair.foundY}H{stair.right}" class="rest" />
      <text x={stair.left + 8} y={stair.foundY - 7} class="tick halo">{foundLabel}</text>
    {/if}
    {#if chosen}
      <rect
        x={chosen.x0}
        y={stair.top - 8}
        width={chosen.x1 - chosen.x0}
        height={stair.bottom - stair.top + 8}
        class="chosen"
      />
    {/if}
    {#each stair.treads as tread, at (at)}
      {@const colour = temperColour(tread.step.grainUm)}
      <path d={tread.area} style:fill={colour} class="under" />
      <path d={tread.path} style:stroke={colour} class="curve" />
    {/each}
    {#if stair.rest}
      <path d="M{stair.left},{stair.rest.y}H{stair.rest.x}" class="rest" />
      <path d="M{stair.rest.x},{stair.top - 8}V{stair.bottom}" class="joins" />
      {#if stair.rest.x - stair.left > 190}
        <text x={stair.rest.x - 10} y={stair.rest.y - 6} text-anchor="end" class="tick halo"
          >rest of the face, not touched yet</text
        >
      {/if}
      <text x={stair.rest.x + 8} y={stair.top + 2} class="tick halo">spots join here</text>
    {/if}
    {#if stair.likely}
      <path
        d="M{stair.likely.x - 4},{stair.likely.y1}h8M{stair.likely.x},{stair.likely.y0}V{stair.likely.y1}"
        class="likely"
      />
      {#if stair.likely.labelY !== null}
        <text x={stair.likely.x + 8} y={stair.likely.labelY} class="tick">likely</text>
      {/if}
    {/if}
    {#each stair.treads as tread, at (at)}
      <circle cx={tread.checkX} cy={tread.checkY} r="7.5" class="check" />
      <path d="M{tread.checkX - 3.2},{tread.checkY}l2.4,2.6 4.2,-5" class="tickmark" />
    {/each}
    {#each stair.treads as tread, at (at)}
      {@const colour = temperColour(tread.step.grainUm)}
      <circle cx={tread.discX} cy={tread.discY} r="11" style:fill={colour} class="disc" />
      <text x={tread.discX} y={tread.discY + 4.5} text-anchor="middle" class="number"
        >{numbers ? numbers[at] : at + 1}</text
      >
      {#if tread.label && !numbers}
        <text x={tread.discX + 16} y={tread.discY + 4.5} style:fill={colour} class="label" class:on={at === selected}
          >{tread.label}</text
        >
      {/if}
    {/each}
    {#if stair.rest}<circle cx={stair.rest.x} cy={stair.rest.y} r="5" class="ring" />{/if}
    {#if stair.rest && stair.narrower > 1}
      <path d="M{stair.rest.x - 5},{stair.bottom + 5}l4,-10m3,10l4,-10" class="break" />
    {/if}
    {#if steps.length}
      {#each stair.minuteTicks as tick (tick.value)}
        <text x={tick.x} y={stair.bottom + 16} text-anchor="middle" class="tick">{figures(tick.value, 3)}</text>
      {/each}
      <text x={stair.right} y={stair.bottom + 31} text-anchor="end" class="axis"
        >minutes a piece{stair.narrower > 1 ? `; from the break on drawn ${stair.narrower} times narrower` : ''}</text
      >
    {/if}
  </svg>
</div>

<style>
  .grid {
    stroke: var(--line);
  }
  .axis {
    fill: var(--dim);
    font-size: 12.5px;
  }
  .tick {
    fill: var(--dim);
    font-size: 12px;
    font-variant-numeric: tabular-nums;
  }
  .wanted {
    fill: var(--go-soft);
  }
  .wanted-label {
    fill: var(--go);
    font-size: 13px;
    font-weight: 600;
    paint-order: stroke;
    stroke: var(--go-soft);
    stroke-width: 4px;
  }
  .under {
    opacity: 0.13;
  }
  .curve {
    fill: none;
    stroke-width: 4;
    stroke-linejoin: round;
  }
  .disc {
    stroke: var(--card);
    stroke-width: 2;
  }
  .number {
    fill: var(--card);
    font-size: 13px;
    font-weight: 700;
  }
  .label {
    font-size: 13.5px;
    font-weight: 600;
    paint-order: stroke;
    stroke: var(--card);
    stroke-width: 5px;
  }
  .label.on {
    font-weight: 750;
  }
  .chosen {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.5;
    stroke-dasharray: 3 4;
    rx: 4px;
  }
  .rest {
    fill: none;
    stroke: var(--dim);
    stroke-width: 2;
    stroke-dasharray: 6 4;
  }
  .joins {
    stroke: var(--dim);
    stroke-width: 1.5;
    stroke-dasharray: 1 4;
  }
  .ring {
    fill: var(--card);
    stroke: var(--ink);
    stroke-width: 2.5;
  }
  .break {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .halo {
    paint-order: stroke;
    stroke: var(--card);
    stroke-width: 4px;
  }
  .likely {
    stroke: var(--dim);
    stroke-width: 1.5;
    stroke-dasharray: 2 2;
  }
  .check {
    fill: var(--card);
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .tickmark {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.6;
  }
</style>
