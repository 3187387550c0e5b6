<!-- The eye at a light check: two photos by the lamp's two places, the line along the new marks, and what was seen. -->
<script lang="ts">
  import { shown } from '../../units/shown.svelte';
  import NumberField from '../NumberField.svelte';
  import ProgressBar from '../ProgressBar.svelte';
  import { AskedEye, type AskEye, type EyeTold } from './asked.svelte';
  import EyeCamera from './EyeCamera.svelte';
  import LampGuide from './LampGuide.svelte';
  import LayLine from './LayLine.svelte';

  interface Props {
    onask: AskEye;
    /** Keep the first photo with what was said of it; says whether it was. */
    onkeep?: (photo: Blob, wide: number, told: EyeTold) => Promise<boolean>;
    /** A deep one was found: the ways back. */
    onback?: () => void;
    /** The person's own eye decides. */
    ondone?: () => void;
  }
  let { onask, onkeep, onback, ondone }: Props = $props();
  const eye = new AskedEye();
  let marked = $state(true);
  let kept = $state(false);
  /** Height of photo 1 in its widths. */
  let tall = $state(1);
  const ratio = (one: HTMLImageElement) => one.naturalHeight / Math.max(1, one.naturalWidth);
  const picture = $derived(eye.along ? URL.createObjectURL(eye.along) : '');
  $effect(() => {
    const now = picture;
    return () => URL.revokeObjectURL(now);
  });
  const SAYS = {
    along: 'Photo 1: the lamp along the new marks. They hide, and old ones across them flare up.',
    across: 'Photo 2: the lamp across the new marks. Leave the phone where it is.',
  };
  const VERDICTS = { seen: 'Seen', 'look-again': 'Look again', 'none-seen': 'None seen', refused: 'It cannot say' };

  async function keep() {
    if (onkeep && eye.along && eye.answer) kept = await onkeep(eye.along, eye.wide, eye.answer);
  }
  function again() {
    eye.again();
    kept = false;
  }
</script>

<div class="grid gap-3">
  {#if eye.next}
    <div class="grid items-start gap-3 sm:grid-cols-[1fr_18rem]">
      <div class="grid gap-2">
        <p class="text-lg font-semibold">{SAYS[eye.next]}</p>
        <p class="small dim">
          Wipe it clean and dry. Hold the phone square on, so that 25 to 50 mm of the face fill the picture. No other
          lamp, no flash, no night mode. {eye.next === 'along'
            ? 'Turn the line until it lies along the new marks.'
            : ''}
        </p>
      </div>
      <LampGuide lamp={eye.next} angle={eye.lay ?? 0} />
    </div>
    {#key eye.next}<EyeCamera
        angle={eye.lay}
        onturn={(to) => (eye.lay = to)}
        ontake={(photo) => eye.take(photo)}
      />{/key}
  {:else}
    <div class="relative mx-auto w-fit overflow-hidden rounded-lg">
      <img
        src={picture}
        alt="The face, the lamp along the new marks"
        class="block max-h-[40vh] max-w-full"
        onload={(event) => (tall = ratio(event.currentTarget as HTMLImageElement))}
      />
      {#if eye.answer}
        {#if marked}
          <svg
            class="absolute inset-0 h-full w-full"
            viewBox="0 0 1 {tall}"
            preserveAspectRatio="none"
            role="img"
            aria-label="Where old marks lie: {eye.answer.lines.length}"
          >
            {#each eye.answer.lines as [x0, y0, x1, y1], at (at)}
              <line x1={x0} y1={y0} x2={x1} y2={y1} stroke="#000" stroke-width="0.006" stroke-linecap="round" />
              <line x1={x0} y1={y0} x2={x1} y2={y1} stroke="#ff5a3c" stroke-width="0.0032" stroke-linecap="round" />
            {/each}
          </svg>
        {/if}
      {:else}
        <LayLine angle={eye.lay} onturn={(to) => (eye.lay = to)} />
      {/if}
    </div>
    {#if eye.answer}
      <section aria-label="What the eye saw" class="grid gap-1.5">
        <h2 class="!text-xl" class:text-(--stop)={eye.answer.verdict === 'seen'}>{VERDICTS[eye.answer.verdict]}</h2>
        {#each eye.answer.said as one (one.code)}<p>{shown.tell(one)}</p>{/each}
      </section>
      <div class="flex flex-wrap gap-2">
        {#if eye.answer.lines.length}
          <button class="plain-button min-h-14" aria-pressed={marked} onclick={() => (marked = !marked)}
            >{marked ? 'Hide the marks' : 'Show the marks'}</button
          >
        {/if}
        {#if onkeep && eye.answer.verdict !== 'refused'}
          <button class="plain-button min-h-14" disabled={kept} onclick={keep}
            >{kept ? 'Saved with the run' : 'Keep the photo with the run'}</button
          >
        {/if}
        <button class="plain-button min-h-14" onclick={again}>Take them again</button>
        <span class="flex-1"></span>
        {#if onback && (eye.answer.verdict === 'seen' || eye.answer.verdict === 'look-again')}
          <button class="main-button min-h-14 !bg-[#8f3a2b]" onclick={onback}>Found a deep one</button>
        {:else if ondone}
          <button class="main-button min-h-14" onclick={ondone}>My eye decides</button>
        {/if}
      </div>
    {:else}
      <div class="grid items-end gap-3 sm:grid-cols-[10rem_10rem_1fr]">
        <NumberField
          label="Width of the picture"
          value={eye.wide}
          quantity="length"
          onchange={(mm) => (eye.wide = mm)}
        />
        <NumberField
          label="Old marks cross at, °"
          value={eye.crossing}
          onchange={(degrees) => (eye.crossing = Math.min(90, degrees))}
        />
        <p class="small dim">
          {eye.lay === null
            ? 'Turn the line on the picture until it lies along the new marks.'
            : `The new marks run at ${eye.lay}°.`}
        </p>
      </div>
      {#if eye.share !== null}
        <ProgressBar value={eye.share} max={1} label="Looking" />
      {/if}
      <div class="flex flex-wrap gap-2">
        <button class="plain-button min-h-14" onclick={again}>Take them again</button>
        <button
          class="main-button min-h-14"
          disabled={eye.lay === null || eye.share !== null}
          onclick={() => void eye.ask(onask)}>{eye.share === null ? 'Ask the eye' : 'Looking …'}</button
        >
      </div>
    {/if}
    {#if eye.trouble}<p class="text-(--stop)" role="alert">{eye.trouble}</p>{/if}
  {/if}
  <p class="small dim">
    The photos stay in this shop; one is saved only if you say so. A wrong “none seen” costs a way back: the lamp and
    your eye decide.
  </p>
</div>
