<!-- The face to scale with its spots and how far each step works around them. Where they lie was not said: they are spread evenly. -->
<script lang="ts">
  import { shown } from '../units/shown.svelte';
  import { barOf, sidesOf, spread, type FaceDrawn, type StepDrawn } from './sketch';
  import { temperColour } from './temper';

  interface Props {
    face: FaceDrawn;
    areaCm2: number;
    steps: readonly StepDrawn[];
    selected: number;
  }
  let { face, areaCm2, steps, selected }: Props = $props();
  const sides = $derived(sidesOf(face, areaCm2));
  const length = $derived(sides[0]);
  const width = $derived(sides[1]);
  const places = $derived(spread(face.spots ?? [], length, width));
  const zones = $derived(steps.map((step, at) => ({ at, step, zone: step.zone })).filter((one) => one.zone));
  const bar = $derived(barOf(length));
  /** Widest first, so that the narrower ones lie on top. */
  const drawn = $derived(
    zones
      .flatMap(({ at, step, zone }) =>
        places.flatMap((place) => {
          const nth = zone!.ids.indexOf(place.key);
          return nth < 0 ? [] : [{ at, step, place, margin: zone!.margins_mm[nth] ?? 0 }];
        }),
      )
      .sort((a, b) => b.margin - a.margin),
  );
</script>

<figure class="shrink-0" aria-label="The face and its spots, to scale">
  <svg
    viewBox="{-length * 0.01} {-length * 0.01} {length * 1.02} {width + length * 0.02}"
    class="max-h-36 w-full"
    role="img"
    aria-label="Spots spread over the face, to scale"
  >
    <rect width={length} height={width} class="face" />
    <svg width={length} height={width} overflow="hidden">
      {#each drawn as { at, step, place, margin } (`${at} ${place.key} ${place.x} ${place.y}`)}
        <rect
          x={place.x - place.length / 2 - margin}
          y={place.y - place.width / 2 - margin}
          width={place.length + 2 * margin}
          height={place.width + 2 * margin}
          rx={margin}
          class="zone"
          class:on={at === selected}
          style:stroke={temperColour(step.grain_um)}
          style:fill={temperColour(step.grain_um)}
        />
      {/each}
      {#each places as place (`${place.key} ${place.x} ${place.y}`)}
        <rect
          x={place.x - place.length / 2}
          y={place.y - place.width / 2}
          width={place.length}
          height={place.width}
          class="spot"
        />
      {/each}
    </svg>
    <path d="M0,{width}h{bar}" class="bar" />
  </svg>
  <figcaption class="small dim">
    To scale: the bar is {shown.say(bar, 'length')}. {(face.spots ?? []).every((spots) => spots.drawn)
      ? 'Where the spots lie is on the photo.'
      : 'Where the spots lie was not said.'}
  </figcaption>
</figure>

<style>
  .face {
    fill: var(--raised);
    stroke: var(--dim);
    stroke-width: 1.5;
    vector-effect: non-scaling-stroke;
  }
  .zone {
    fill-opacity: 0.12;
    stroke-width: 1.2;
    vector-effect: non-scaling-stroke;
  }
  .zone.on {
    fill-opacity: 0.35;
    stroke-width: 2.5;
  }
  .spot {
    fill: var(--stop);
    stroke: var(--stop);
    stroke-width: 1.5;
    vector-effect: non-scaling-stroke;
  }
  .bar {
    stroke: var(--ink);
    stroke-width: 3;
    vector-effect: non-scaling-stroke;
  }
</style>
