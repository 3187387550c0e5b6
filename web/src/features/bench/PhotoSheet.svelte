<!-- Photos of a stage, beside an untouched or a finished reference at the same scale. -->
<script lang="ts">
  import FilePick from '../../ui/FilePick.svelte';
  import { api, type Photo, type Photos } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import Either from '../../ui/Either.svelte';
  import { notices } from '../../ui/notices.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import SideBySide from '../../ui/SideBySide.svelte';
  import type { BenchRun } from './run.svelte';
  import { smaller } from '../../ui/smaller';

  let { bench, open, onclose }: { bench: BenchRun; open: boolean; onclose: () => void } = $props();
  const kept = new Answer<Photos>();
  let shows = $state<Photo['shows']>('stage');
  let across = $state<number | null>(null);
  let busy = $state(false);

  $effect(() => {
    if (open) kept.ask(api.photos(bench.run.id), true);
  });

  async function add(file: File) {
    busy = true;
    try {
      const photo = await api.addPhoto(bench.run.id, await smaller(file), shows, across ?? undefined);
      const hand = bench.hand;
      const at = hand ? { piece: hand.piece, face: hand.face_id, route: hand.route, step: hand.step } : {};
      await bench.tap({ kind: 'photo', photo: photo.id, ...at });
      kept.ask(api.photos(bench.run.id), true);
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    } finally {
      busy = false;
    }
  }

  async function scale(photo: number, mm: number) {
    try {
      await api.scalePhoto(photo, mm);
      kept.ask(api.photos(bench.run.id), true);
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }
</script>

<Dialog bind:open={() => open, (now) => now || onclose()} title="Photos" wide>
  <div class="grid gap-3">
    <div class="grid items-end gap-3 sm:grid-cols-[1fr_13rem]">
      <Either
        label="What it shows"
        value={shows}
        options={[
          { id: 'stage', label: 'This stage' },
          { id: 'untouched', label: 'Untouched reference' },
          { id: 'finished', label: 'Finished reference' },
        ]}
        onchange={(next) => (shows = next)}
      />
      <NumberField
        label="Width of the next photo"
        value={across}
        quantity="length"
        onchange={(mm) => (across = mm)}
        onclear={() => (across = null)}
      />
    </div>
    <div class="flex flex-wrap gap-2">
      <FilePick
        label="Take a photo"
        accept="image/*"
        camera
        disabled={busy}
        class="main-button"
        onfiles={([file]) => file && void add(file)}>Take a photo</FilePick
      >
      <FilePick
        label="From a file"
        accept="image/jpeg,image/png,image/webp"
        disabled={busy}
        onfiles={([file]) => file && void add(file)}>From a file</FilePick
      >
      <p class="small dim flex-1 self-center">
        Only the picture is saved: position, time and camera are removed. With its width known, it is shown at the same
        scale as the reference.
      </p>
    </div>
    {#if kept.trouble}<p class="text-(--stop)" role="alert">{kept.trouble}</p>{/if}
    {#if kept.value}
      <SideBySide photos={kept.value.photos} references={kept.value.references} onscale={scale} />
    {/if}
  </div>
</Dialog>
