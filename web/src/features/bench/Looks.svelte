<!-- What the step in hand should look like when it is done, and what it looks like when it is not. -->
<script lang="ts">
  import { api, type Hand, type PartPhoto, type Tile } from '../../api/client';
  import FaceSketch from '../../charts/FaceSketch.svelte';
  import PartPicture from '../../ui/PartPicture.svelte';
  import { Answer } from '../../ui/answer.svelte';
  import LightTile from '../../ui/LightTile.svelte';

  let { run, hand, job }: { run: number; hand: Hand; job: number | null } = $props();
  const photos = new Answer<PartPhoto[]>();
  $effect(() => {
    if (job) photos.ask(api.partPhotos(job));
  });
  /** The photo on which the face in hand is outlined: where to work now. */
  const photo = $derived(
    photos.value?.find(
      (one) =>
        one.shows === 'before' &&
        [...(one.drawn.outlines ?? []), ...(one.drawn.marks ?? [])].some((other) => other.face === hand.face_id),
    ),
  );
  /** The marks on it of the spots that the step works. */
  const here = $derived(
    (photo?.drawn.marks ?? []).flatMap((mark, at) =>
      mark.face === hand.face_id && hand.plan.zone?.ids.includes(mark.spots) ? [at] : [],
    ),
  );
  /** The spots that the step works, where the face is described with them. */
  const drawn = $derived(
    hand.plan.zone?.ids.some((id) => hand.described.spots?.some((spots) => spots.id === id)) ?? false,
  );
  const answer = new Answer<Tile[]>();
  const which = $derived(`${hand.face_id}.${hand.route}.${hand.step}`);

  $effect(() => {
    void which;
    answer.ask(api.lightAtBench(run));
  });
</script>

<div class="grid w-full gap-3 {photo || drawn ? 'grid-cols-3' : 'grid-cols-2'}">
  {#if photo}
    <figure class="min-w-0" data-where>
      <div class="overflow-hidden rounded-lg border border-(--line)" style:aspect-ratio="384 / 176">
        <PartPicture
          {photo}
          drawn={photo.drawn}
          face={hand.face_id}
          picked={here}
          label="The part on its photo: work at {hand.face} now"
        />
      </div>
      <figcaption class="small mt-0.5 truncate">Work here: {hand.face}</figcaption>
    </figure>
  {/if}
  {#if !photo && drawn}
    <FaceSketch face={hand.described} areaCm2={hand.area_cm2} steps={[hand.plan]} selected={0} />
  {/if}
  {#each answer.value ?? [] as tile (tile.label)}
    <LightTile src="/api/light/{tile.key}.webp" label={tile.label} words={() => api.lightWords(tile.key)} />
  {/each}
</div>
