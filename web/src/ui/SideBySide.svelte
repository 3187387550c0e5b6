<!-- Two photos at the same scale: a millimetre is as long in one as in the other, where both say how wide they are. -->
<script lang="ts">
  import { sameScale } from './same-scale';
  import Choice from './Choice.svelte';
  import NumberField from './NumberField.svelte';
  import Scrolling from './Scrolling.svelte';

  interface Shot {
    id: number;
    shows: 'stage' | 'untouched' | 'finished';
    width: number;
    height: number;
    across_mm: number | null;
  }
  interface Props {
    photos: Shot[];
    references: Shot[];
    onscale?: (photo: number, mm: number) => void;
  }
  let { photos, references, onscale }: Props = $props();
  const SAID = { stage: 'Stage', untouched: 'Untouched', finished: 'Finished' };
  const all = $derived([...photos, ...references.filter((one) => !photos.some((photo) => photo.id === one.id))]);
  let leftId = $state('');
  let rightId = $state('');
  const left = $derived(all.find((one) => String(one.id) === leftId) ?? photos.at(-1));
  const right = $derived(
    all.find((one) => String(one.id) === rightId) ?? [...references, ...all].find((one) => one.id !== left?.id) ?? null,
  );
  let room = $state(320);
  const scale = $derived(sameScale(left ?? null, right, room));
  const options = $derived(all.map((one) => ({ id: String(one.id), label: `${SAID[one.shows]}, photo ${one.id}` })));
</script>

{#snippet side(label: string, shot: Shot | null | undefined, px: number, choose: (id: string) => void)}
  <figure class="min-w-0 flex-1">
    <Choice {label} value={String(shot?.id ?? '')} {options} onchange={choose} />
    {#if shot}
      <Scrolling
        label="{label}: {SAID[shot.shows]}, photo {shot.id}"
        class="mt-1.5 h-72 rounded-lg contain-inline-size border border-(--line)"
        bind:width={room}
      >
        <img
          src="/api/photos/{shot.id}.jpg"
          alt="{SAID[shot.shows]}, photo {shot.id}"
          style:width="{px}px"
          class="max-w-none"
          loading="lazy"
        />
      </Scrolling>
      {#if onscale}
        <NumberField
          label="Width that it shows"
          value={shot.across_mm}
          quantity="length"
          lazy
          onchange={(mm) => onscale(shot.id, mm)}
        />
      {/if}
    {/if}
  </figure>
{/snippet}

{#if all.length}
  <div class="flex gap-3">
    {@render side('This', left, scale.left, (id) => (leftId = id))}
    {#if right}
      {@render side('Beside', right, scale.right, (id) => (rightId = id))}
    {:else}
      <p class="dim flex-1 self-center text-center">A second photo, or a reference, is shown beside it.</p>
    {/if}
  </div>
  <p class="small dim mt-1">{scale.said}</p>
{:else}
  <p class="dim">No photos yet.</p>
{/if}
