<!-- The best trade-offs as points; those of the schools are named. Keys move among them, a tap takes one in hand. -->
<script lang="ts">
  import { figures } from '../units/units';
  import { layOutRoutes, nextAcross, shapeOf, type RoutePoint } from './routes';

  interface Props {
    points: RoutePoint[];
    /** What is up the side, with its unit. */
    side: string;
    /** Values of the side in the units shown. */
    said: (value: number) => string;
    selected: number;
    inHand: number;
    onselect: (at: number) => void;
    ontake: (at: number) => void;
  }
  let { points, side, said, selected, inHand, onselect, ontake }: Props = $props();
  let width = $state(420);
  const HEIGHT = 250;
  const drawn = $derived(layOutRoutes(points, width, HEIGHT));
  const changes = $derived([...new Set(points.map((point) => Math.min(point.changes, 4)))].sort((a, b) => a - b));

  function key(event: KeyboardEvent) {
    const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key] as 1 | -1 | undefined;
    if (by) onselect(nextAcross(points, selected, by));
    else if (event.key === 'Enter') ontake(selected);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<!-- The picture is one control: arrows move in it, as in a list of choices. -->
<div bind:clientWidth={width} class="min-w-0">
  <!-- svelte-ignore a11y_no_noninteractive_element_interactions, a11y_no_noninteractive_tabindex -->
  <svg
    {width}
    height={HEIGHT}
    role="application"
    tabindex="0"
    aria-label="Ways as points, minutes across, {side} upwards; arrow keys move, Enter takes"
    onkeydown={key}
  >
    {#each drawn.yTicks as tick (tick.value)}
      <line x1={drawn.left} x2={drawn.right} y1={tick.y} y2={tick.y} class="grid" />
      <text x={drawn.left - 6} y={tick.y + 4} text-anchor="end" class="tick">{said(tick.value)}</text>
    {/each}
    {#each drawn.xTicks as tick (tick.value)}
      <text x={tick.x} y={drawn.bottom + 15} text-anchor="middle" class="tick">{figures(tick.value, 3)}</text>
    {/each}
    <text x={drawn.right} y={HEIGHT - 6} text-anchor="end" class="axis">minutes</text>
    <text x="2" y="11" class="axis">{side}</text>
    {#each drawn.marks as mark, at (at)}
      <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
      <g
        transform="translate({mark.x},{mark.y})"
        class="mark"
        class:selected={at === selected}
        class:held={at === inHand}
        onmouseenter={() => onselect(at)}
        onclick={() => onselect(at)}
      >
        <circle r="13" class="reach" />
        <path d={mark.path} />
      </g>
      {#if mark.label}
        {#if Math.abs(mark.labelY - 4 - mark.y) > 10}
          <line x1={mark.x} y1={mark.y} x2={mark.labelX} y2={mark.labelY - 4} class="grid leader" />
        {/if}
        <text x={mark.labelX} y={mark.labelY} text-anchor={mark.anchor} class="name" class:on={at === selected}
          >{mark.label}</text
        >
      {/if}
    {/each}
  </svg>
  <p class="small dim flex flex-wrap gap-x-3" aria-hidden="true">
    {#each changes as count (count)}
      <span class="flex items-center gap-1"
        ><svg width="14" height="14"><path d={shapeOf(count, 60)} transform="translate(7,7)" class="key" /></svg
        >{count === 4 ? '4 or more changes' : `${count} ${count === 1 ? 'change' : 'changes'}`}</span
      >
    {/each}
  </p>
</div>

<style>
  .grid {
    stroke: var(--line);
  }
  .leader {
    stroke: var(--dim);
    pointer-events: none;
  }
  .axis,
  .tick {
    fill: var(--dim);
    font-size: 12px;
    font-variant-numeric: tabular-nums;
  }
  .reach {
    fill: transparent;
  }
  .mark {
    cursor: pointer;
  }
  .mark path,
  .key {
    fill: var(--card);
    stroke: var(--t5);
    stroke-width: 2;
  }
  .mark.held path {
    fill: var(--t5);
  }
  .mark.selected path {
    stroke: var(--ink);
    stroke-width: 3.5;
  }
  .name {
    font-size: 12px;
    fill: var(--ink);
    paint-order: stroke;
    stroke: var(--card);
    stroke-width: 4px;
    pointer-events: none;
  }
  .name.on {
    font-weight: 700;
  }
</style>
