<!-- The faces that are drawn on a photo, with their areas, to be used in the job. -->
<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import type { PartPhoto } from '../../api/client';
  import CopyTable from '../../ui/CopyTable.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { shown } from '../../units/shown.svelte';
  import type { PartOnPhoto } from './photo.svelte';

  let { part, photo, colourOf }: { part: PartOnPhoto; photo: PartPhoto; colourOf: (face: string) => string } = $props();
</script>

{#if photo.drawn.outlines?.length}
  <table class="lines w-full" aria-label="Faces on the photo">
    <thead class="small dim text-left"
      ><tr><th>Face</th><th>Area</th><th>Curved</th><th><span class="sr-only">Remove</span></th></tr></thead
    >
    <tbody>
      {#each photo.drawn.outlines as one, n (n)}
        <tr>
          <td style:border-left="4px solid {one.keep_off ? 'var(--stop)' : colourOf(one.face)}" class="!pl-2"
            >{one.name || one.face}</td
          >
          <td class="num">{photo.areas[n] === null ? 'needs a scale' : shown.say(photo.areas[n] ?? 0, 'area', 3)}</td>
          <td class="w-20">
            <NumberField
              label="How much larger {one.name || one.face} is than it looks"
              hideLabel
              lazy
              value={one.curved}
              onchange={(curved) =>
                void part.draw((drawn) => ({
                  ...drawn,
                  outlines: drawn.outlines?.map((other, at) => (at === n ? { ...other, curved } : other)),
                }))}
            />
          </td>
          <td class="!pr-0 text-right">
            <button
              class="inline-grid size-[24px] place-items-center"
              aria-label="Take the outline of {one.name || one.face} away"
              onclick={() => void part.takeOut('outlines', n)}><X size={16} /></button
            >
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
  <CopyTable />
  <p class="small dim">
    Curvature factor: 1 is flat; half a cylinder seen from the side is 1.57 times as large as it looks.
  </p>
  <button
    class="main-button touch"
    disabled={part.busy || !photo.areas.some((one) => one !== null)}
    onclick={() => void part.useAreas()}>Use these areas in the job</button
  >
{/if}
