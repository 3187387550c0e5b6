<!-- The eye at a light check: the lamp across, how the new marks run, the lamp along, and what was seen. -->
<script lang="ts">
  import { shown } from '../../units/shown.svelte';
  import NumberField from '../NumberField.svelte';
  import ProgressBar from '../ProgressBar.svelte';
  import { untrack } from 'svelte';
  import { AskedEye, type AskEye, type EyeTold, type ShowsTold } from './asked.svelte';
  import EyeCamera from './EyeCamera.svelte';
  import EyePhoto from './EyePhoto.svelte';
  import LampGuide from './LampGuide.svelte';
  import LayLine from './LayLine.svelte';

  interface Props {
    asks: AskEye;
    /** Keep the second photo with what was said of it; says whether it was. */
    onkeep?: (photo: Blob, wide: number, told: EyeTold) => Promise<boolean>;
    /** A deep one was found: the ways back. */
    onback?: () => void;
    /** The person's own eye decides. */
    ondone?: () => void;
  }
  let { asks, onkeep, onback, ondone }: Props = $props();
  const eye = new AskedEye(untrack(() => asks));
  let marked = $state(true);
  let kept = $state(false);
  let pixels = $state<number>();
  let shows = $state.raw<ShowsTold | null>(null);
  const SAYS = {
    across: 'Photo 1: the lamp across the new marks. They show, and how they run is read from them.',
    along: 'Photo 2: the lamp along the new marks. They hide, and old ones across them flare up.',
  };
  const VERDICTS = { seen: 'Seen', 'look-again': 'Look again', 'none-seen': 'None seen', refused: 'It cannot say' };

  // What the camera shows is told before any photo, and anew with the width and the camera.
  $effect(() => {
    const { wide, now } = eye;
    if (now !== 'across') return;
    let late = false;
    asks
      .shows(wide, pixels)
      .then((told) => late || (shows = told))
      .catch(() => late || (shows = null));
    return () => (late = true);
  });

  async function keep() {
    if (onkeep && eye.along && eye.answer) kept = await onkeep(eye.along, eye.wide, eye.answer);
  }
  function onceMore(whole: boolean) {
    if (whole) eye.again();
    else eye.onceMore();
    kept = false;
  }
</script>

<div class="grid gap-3">
  {#if eye.now === 'across' || eye.now === 'along'}
    <div class="grid items-start gap-3 sm:grid-cols-[1fr_18rem]">
      <div class="grid gap-2">
        <p class="text-lg font-semibold">{SAYS[eye.now]}</p>
        {#if eye.now === 'across'}
          <p class="small dim">
            Wipe it clean and dry. Hold the phone square on something that keeps it there for both photos. No other
            lamp, no flash, no night mode.
          </p>
          <div class="grid items-end gap-3 sm:grid-cols-[10rem_1fr]">
            <NumberField
              label="Width of the picture"
              value={eye.wide}
              quantity="length"
              onchange={(mm) => (eye.wide = mm)}
            />
            {#if shows}
              <p class="small" class:text-(--stop)={!shows.enough} role="status">
                {shows.said.map((one) => shown.tell(one)).join(' ')}
              </p>
            {/if}
          </div>
        {:else}
          <p class="small dim">Leave the phone where it is, and the focus too; move the lamp alone.</p>
        {/if}
      </div>
      <LampGuide lamp={eye.now} angle={eye.lay ?? 0} />
    </div>
    {#key eye.now}<EyeCamera
        angle={eye.now === 'along' ? eye.lay : null}
        wide={eye.wide}
        by={shows}
        onlive={(wide) => (pixels = wide)}
        ontake={(photo) => void eye.take(photo)}
      />{/key}
    {#if eye.now === 'along'}
      <button class="plain-button min-h-14 justify-self-start" onclick={() => onceMore(true)}>Begin again</button>
    {/if}
  {:else if eye.now === 'lay'}
    <EyePhoto photo={eye.across} says="The face, the lamp across the new marks">
      {#if eye.lay !== null}<LayLine angle={eye.lay} onturn={(to) => (eye.lay = to)} />{/if}
    </EyePhoto>
    {#if eye.share !== null}<ProgressBar value={null} max={1} label="Looking for the new marks" />{/if}
    {#if eye.found}
      <section aria-label="How the new marks run" class="grid gap-1.5">
        {#each eye.found.said as one (one.code)}<p>{shown.tell(one)}</p>{/each}
      </section>
    {/if}
    {#if eye.lay !== null}
      <div class="max-w-40">
        <NumberField
          label="Old marks cross at, °"
          value={eye.crossing}
          onchange={(degrees) => (eye.crossing = Math.min(90, degrees))}
        />
      </div>
    {/if}
    <div class="flex flex-wrap gap-2">
      <button class="plain-button min-h-14" onclick={() => onceMore(true)}>Take it again</button>
      {#if eye.lay !== null}
        <button class="main-button min-h-14" onclick={() => eye.confirm()}>Yes, it lies along them</button>
      {/if}
    </div>
  {:else}
    <EyePhoto photo={eye.along} says="The face, the lamp along the new marks" lines={marked ? eye.answer?.lines : []} />
    {#if eye.answer}
      <section aria-label="What the eye saw" class="grid gap-1.5">
        <h2 class="!text-xl" class:text-(--stop)={eye.answer.verdict === 'seen'}>{VERDICTS[eye.answer.verdict]}</h2>
        {#each eye.answer.said as one (one.code)}<p>{shown.tell(one)}</p>{/each}
      </section>
    {:else if eye.share !== null}
      <ProgressBar value={eye.share} max={1} label="Looking" />
    {/if}
    <div class="flex flex-wrap gap-2">
      {#if eye.answer?.lines.length}
        <button class="plain-button min-h-14" aria-pressed={marked} onclick={() => (marked = !marked)}
          >{marked ? 'Hide the marks' : 'Show the marks'}</button
        >
      {/if}
      {#if onkeep && eye.answer && eye.answer.verdict !== 'refused'}
        <button class="plain-button min-h-14" disabled={kept} onclick={keep}
          >{kept ? 'Saved with the run' : 'Keep the photo with the run'}</button
        >
      {/if}
      <button class="plain-button min-h-14" onclick={() => onceMore(false)}>Photo 2 again</button>
      <button class="plain-button min-h-14" onclick={() => onceMore(true)}>Both again</button>
      <span class="flex-1"></span>
      {#if onback && (eye.answer?.verdict === 'seen' || eye.answer?.verdict === 'look-again')}
        <button class="main-button min-h-14 !bg-[#8f3a2b]" onclick={onback}>Found a deep one</button>
      {:else if ondone && eye.answer}
        <button class="main-button min-h-14" onclick={ondone}>My eye decides</button>
      {/if}
    </div>
  {/if}
  {#if eye.trouble}<p class="text-(--stop)" role="alert">{eye.trouble}</p>{/if}
  <p class="small dim">
    The photos stay in this shop; one is saved only if you say so. A wrong “none seen” costs a way back: the lamp and
    your eye decide.
  </p>
</div>
