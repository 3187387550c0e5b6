<!-- A round section: the form with its error magnified, the limits as circles, the tool as a third, what is clean tinted. -->
<script lang="ts">
  import { layOutSection, type Section } from './section';

  let {
    section,
    diameter,
    size = 260,
    words,
  }: { section: Section; diameter: number; size?: number; words: string } = $props();
  const drawn = $derived(layOutSection(section, diameter, size));
</script>

<figure class="w-fit">
  <svg width={size} height={size} viewBox="{-size / 2} {-size / 2} {size} {size}" role="img" aria-label={words}>
    {#each drawn.cleaned as part (part)}<path d={part} fill="var(--go)" fill-opacity="0.55" />{/each}
    <circle r={drawn.low} fill="none" stroke="var(--dim)" stroke-dasharray="5 4" />
    <circle r={drawn.high} fill="none" stroke="var(--dim)" stroke-dasharray="5 4" />
    <circle r={drawn.now} fill="none" stroke="var(--go)" stroke-width="1.4" />
    <path d={drawn.outline} fill="none" stroke="var(--ink)" stroke-width="2.4" />
  </svg>
  <figcaption class="small dim text-center">error about {drawn.times} times as large as the part</figcaption>
</figure>
