<!-- Identify the grit Neighbouring grades at one scale, beside the part in the hand or a photo of it. -->
<script lang="ts">
  import FilePick from '../../ui/FilePick.svelte';
  import { api, type PatchShown } from '../../api/client';
  import { choices } from '../../api/catalogue.svelte';
  import { Answer } from '../../ui/answer.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import LightTile from '../../ui/LightTile.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { shown } from '../../units/shown.svelte';
  import Scrolling from '../../ui/Scrolling.svelte';

  interface Props {
    material: string;
    open: boolean;
    onchoose: (grade: string) => void;
  }
  let { material, open = $bindable(), onchoose }: Props = $props();
  const SHOWN = 5;
  const ROWS = 384;
  const COLUMNS = 384;
  const GAPS = 8;
  const SPACING_UM = 8;
  const WIDE_MM = (COLUMNS * SPACING_UM) / 1000;
  let moved = $state(0);
  let photo = $state<string | null>(null);
  let across = $state(10);
  /** Pixels that the swatches take side by side; the photo has as many to the millimetre. */
  let room = $state(0);
  const perMm = $derived((room - GAPS * (SHOWN - 1)) / SHOWN / WIDE_MM);
  const patches = new Answer<{ grade: string; patch: PatchShown }[]>();
  const last = $derived(Math.max(0, choices.papers.length - SHOWN));
  /** Around the grades that are met most. */
  const middle = $derived(choices.papers.findIndex((one) => one.id === 'P180') - 2);
  const first = $derived(Math.min(last, Math.max(0, middle + moved)));
  const grades = $derived(choices.papers.slice(first, first + SHOWN).map((one) => one.id));

  $effect(() => {
    if (!open) return;
    const asked = grades.map(async (grade) => ({
      grade,
      patch: await api.lightPatch({ material, after: grade, rows: ROWS, columns: COLUMNS, spacing_um: SPACING_UM }),
    }));
    patches.ask(Promise.all(asked), true);
  });

  /** The photo stays in this browser: it is only looked at. */
  function look(file: File | undefined) {
    if (photo) URL.revokeObjectURL(photo);
    photo = file ? URL.createObjectURL(file) : null;
  }

  function choose(grade: string) {
    onchoose(grade);
    open = false;
  }
</script>

<Dialog bind:open title="Identify the grit" wide>
  <p class="small dim">
    Hold the part beside the screen under one low lamp and a loupe, or take a photo. Every picture shows {shown.say(
      WIDE_MM,
      'length',
    )}. Coarse is on the left.
  </p>
  {#if photo}
    <Scrolling label="Your part at the same scale" class="mt-3 max-h-60 rounded-lg border border-(--line)">
      <img src={photo} alt="Your part" class="max-w-none" style:width="{across * perMm}px" />
    </Scrolling>
  {/if}
  <div class="my-3 grid grid-cols-5" style:gap="{GAPS}px" style:--tile="{COLUMNS} / {ROWS}" bind:clientWidth={room}>
    {#each patches.value ?? [] as one (one.grade)}
      <div class="grid gap-1">
        <LightTile
          src="/api/light/{one.patch.key}.png"
          label={one.grade}
          words={() => Promise.resolve(one.patch.words)}
        />
        <button class="plain-button small" onclick={() => choose(one.grade)}>It is {one.grade}</button>
      </div>
    {/each}
  </div>
  {#if patches.trouble}<p class="text-(--stop)" role="alert">{patches.trouble}</p>{/if}
  <div class="flex flex-wrap items-end gap-3">
    <button class="plain-button" disabled={first === 0} onclick={() => (moved -= 1)}>Coarser</button>
    <button class="plain-button" disabled={first >= last} onclick={() => (moved += 1)}>Finer</button>
    <span class="flex-1"></span>
    {#if photo}
      <div class="w-40">
        <NumberField label="Width of the photo" value={across} quantity="length" onchange={(mm) => (across = mm)} />
      </div>
    {/if}
    <FilePick label="A photo of the part" accept="image/*" camera onfiles={([file]) => look(file)}
      >A photo of the part</FilePick
    >
  </div>
</Dialog>
