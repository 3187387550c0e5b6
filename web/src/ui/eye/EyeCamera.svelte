<!-- The live picture with figures to watch, or a photo that was taken otherwise. -->
<script lang="ts">
  import FilePick from '../FilePick.svelte';
  import { onMount } from 'svelte';
  import LayLine from './LayLine.svelte';
  import { livePicture, type LivePicture, type LiveRule } from './live';

  interface Props {
    /** How the new marks run, once that is known. */
    angle: number | null;
    /** Width of the face across the picture, mm. */
    wide: number;
    /** What the live picture is measured by; without it, it is not. */
    by: LiveRule | null;
    /** Called with how many pixels the live picture is wide. */
    onlive?: (pixels: number) => void;
    ontake: (photo: Blob) => void;
  }
  let { angle, wide, by, onlive, ontake }: Props = $props();
  const LOOK_MS = 400;
  const LOOKED_AT = 256;
  const QUALITY = 0.97;

  /** What only some cameras can, and what browsers know of it. */
  interface Able {
    torch?: boolean;
    focusMode?: string[];
    exposureMode?: string[];
  }
  let video = $state<HTMLVideoElement>();
  let track = $state.raw<MediaStreamTrack | null>(null);
  let live = $state(false);
  let able = $state.raw<Able>({});
  let kept = $state(false);
  let torch = $state(false);
  let figures = $state.raw<LivePicture | null>(null);
  let finest = $state(0);
  const lockable = $derived(!!(able.focusMode?.includes('manual') || able.exposureMode?.includes('manual')));

  // Only an origin that is trusted has a camera; a photo that was taken otherwise is always there.
  onMount(() => {
    let left = false;
    const watch = setInterval(look, LOOK_MS);
    navigator.mediaDevices
      ?.getUserMedia({ video: { facingMode: 'environment', width: { ideal: 4096 }, height: { ideal: 3072 } } })
      .then((given) => {
        const [first] = given.getVideoTracks();
        if (left || !video || !first) return given.getTracks().forEach((one) => one.stop());
        track = first;
        able = (first.getCapabilities?.() ?? {}) as Able;
        video.srcObject = given;
        void video.play();
      })
      .catch(() => (live = false));
    return () => {
      left = true;
      clearInterval(watch);
      track?.stop();
    };
  });

  /** The middle of the picture, pixel for pixel: what is sharp shows only there. */
  function look() {
    if (!video || !live || !by) return;
    const side = Math.min(LOOKED_AT, video.videoWidth, video.videoHeight);
    const canvas = document.createElement('canvas');
    canvas.width = canvas.height = side;
    const pen = canvas.getContext('2d', { willReadFrequently: true });
    if (!pen || !side) return;
    pen.drawImage(video, (video.videoWidth - side) / 2, (video.videoHeight - side) / 2, side, side, 0, 0, side, side);
    figures = livePicture(pen.getImageData(0, 0, side, side).data, side, by);
    finest = Math.max(finest, figures.fine);
  }

  // Browsers know these settings, the types of TypeScript do not yet.
  async function set(wanted: object): Promise<boolean> {
    try {
      await track?.applyConstraints({ advanced: [wanted] });
      return true;
    } catch {
      return false; // a camera may refuse what it said it could
    }
  }

  async function keepFocus() {
    const mode = kept ? 'continuous' : 'manual';
    const done = await set({
      ...(able.focusMode?.includes(mode) ? { focusMode: mode } : {}),
      ...(able.exposureMode?.includes(mode) ? { exposureMode: mode } : {}),
    });
    if (done) kept = !kept;
  }
  async function turnTorch(on: boolean) {
    if (await set({ torch: on })) torch = on;
  }

  async function snap() {
    if (!video) return;
    if (torch) {
      // It would be a second lamp.
      await turnTorch(false);
      await new Promise((wait) => setTimeout(wait, LOOK_MS));
    }
    const canvas = document.createElement('canvas');
    canvas.width = video.videoWidth;
    canvas.height = video.videoHeight;
    canvas.getContext('2d')?.drawImage(video, 0, 0);
    canvas.toBlob((photo) => photo && ontake(photo), 'image/jpeg', QUALITY);
  }
  const percent = (share: number) => `${Math.round(100 * share)} %`;
</script>

<div class="relative overflow-hidden rounded-lg bg-black" class:hidden={!live}>
  <video
    bind:this={video}
    class="block max-h-[28vh] w-full object-contain"
    playsinline
    muted
    onloadeddata={() => {
      live = true;
      onlive?.(video?.videoWidth ?? 0);
    }}
  ></video>
  {#if angle !== null}<LayLine {angle} />{/if}
</div>
{#if live && figures && video}
  <dl class="small grid grid-cols-2 gap-x-4 gap-y-1 sm:grid-cols-4" aria-label="The live picture">
    <div>
      <dt class="dim">Sharp, of the sharpest yet</dt>
      <dd>{percent(finest ? figures.fine / finest : 0)}</dd>
    </div>
    <div>
      <dt class="dim">Black or white</dt>
      <dd>{percent(figures.lost)}</dd>
    </div>
    <div>
      <dt class="dim">Other light, at most</dt>
      <dd>{percent(Math.min(1, figures.floor))}</dd>
    </div>
    <div>
      <dt class="dim">A pixel</dt>
      <dd>{((1000 * wide) / video.videoWidth).toFixed(1)} µm</dd>
    </div>
  </dl>
{/if}
<div class="flex flex-wrap gap-2">
  {#if live}<button class="main-button min-h-14" onclick={snap}>Take it</button>{/if}
  <FilePick
    label="Photo from the camera"
    accept="image/jpeg,image/png"
    camera
    class="{live ? 'plain-button' : 'main-button'} min-h-14"
    onfiles={([file]) => file && ontake(file)}>Use the camera’s app</FilePick
  >
  <FilePick
    label="Photo from a file"
    accept="image/jpeg,image/png"
    class="plain-button min-h-14"
    onfiles={([file]) => file && ontake(file)}>Choose a photo</FilePick
  >
  {#if live && lockable}
    <button class="plain-button min-h-14" aria-pressed={kept} onclick={keepFocus}>Keep focus and exposure</button>
  {/if}
  {#if live && able.torch}
    <button class="plain-button min-h-14" aria-pressed={torch} onclick={() => turnTorch(!torch)}
      >Light of the phone, to find the place</button
    >
  {/if}
</div>
