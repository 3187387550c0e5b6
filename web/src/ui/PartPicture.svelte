<!-- A photo of the part with its faces: the one in work stands out, what is kept off is hatched, damage is marked. -->
<script lang="ts">
  import { middle, polygon, type Point } from '../charts/overlay';
  import type { Snippet } from 'svelte';

  interface Drawn {
    outlines?: { face: string; name?: string; points: Point[]; keep_off?: boolean }[];
    marks?: { damage: string; points: Point[]; closed?: boolean }[];
  }
  interface Props {
    photo: { id: number; width: number; height: number };
    drawn: Drawn;
    label: string;
    /** The face that is in work now. */
    face?: string;
    colourOf?: (face: string) => string;
    names?: boolean;
    /** Marks that stand out, by their places. */
    picked?: readonly number[];
    /** Drawn over it, in pixels of the picture. */
    children?: Snippet;
  }
  let {
    photo,
    drawn,
    label,
    face,
    colourOf = () => 'var(--t5)',
    names = false,
    picked = [],
    children,
  }: Props = $props();
  const id = $props.id();
  const thick = $derived(Math.max(photo.width, photo.height) / 260);
</script>

<svg
  viewBox="0 0 {photo.width} {photo.height}"
  class="block h-full max-h-full w-full"
  role="img"
  aria-label={label}
  preserveAspectRatio="xMidYMid meet"
>
  <defs>
    <pattern
      id="{id}-off"
      width={thick * 6}
      height={thick * 6}
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(45)"
    >
      <rect width={thick * 2} height={thick * 6} fill="var(--stop)" />
    </pattern>
  </defs>
  <image href="/api/part-photos/{photo.id}.jpg" width={photo.width} height={photo.height} />
  {#each drawn.outlines ?? [] as one, at (at)}
    {@const here = one.face === face}
    <polygon
      points={polygon(one.points)}
      fill={one.keep_off ? `url(#${id}-off)` : colourOf(one.face)}
      fill-opacity={one.keep_off ? 0.55 : here ? 0.38 : face === undefined ? 0.2 : 0.06}
      stroke={one.keep_off ? 'var(--stop)' : colourOf(one.face)}
      stroke-width={here ? thick * 2 : thick}
      data-face={one.face}
    />
    {#if names}
      {@const [x, y] = middle(one.points)}
      <text {x} {y} text-anchor="middle" font-size={thick * 9} class="name" stroke-width={thick * 2}
        >{one.name || one.face}</text
      >
    {/if}
  {/each}
  {#each drawn.marks ?? [] as mark, at (at)}
    {@const width = picked.includes(at) ? 2 : 1}
    {#if mark.closed}
      <polygon
        points={polygon(mark.points)}
        fill="#a8321f"
        fill-opacity="0.25"
        stroke="#a8321f"
        stroke-width={thick * 1.4 * width}
      />
    {:else if mark.points.length > 1}
      <polyline points={polygon(mark.points)} fill="none" stroke="#fff" stroke-width={thick * 2.4} />
      <polyline points={polygon(mark.points)} fill="none" stroke="#a8321f" stroke-width={thick * 1.4 * width} />
    {:else}
      {@const [x, y] = mark.points[0] ?? [0, 0]}
      <circle cx={x} cy={y} r={thick * 4} fill="none" stroke="#fff" stroke-width={thick * 2.4} />
      <circle cx={x} cy={y} r={thick * 4} fill="none" stroke="#a8321f" stroke-width={thick * 1.4} />
    {/if}
  {/each}
  {@render children?.()}
</svg>

<style>
  .name {
    fill: #fff;
    stroke: #22262b;
    paint-order: stroke;
    font-weight: 650;
  }
</style>
