<!-- The live picture with the line of the new marks over it, or the camera's own file where there is none. -->
<script lang="ts">
  import FilePick from '../FilePick.svelte';
  import { onMount } from 'svelte';
  import LayLine from './LayLine.svelte';

  interface Props {
    angle: number | null;
    onturn: (angle: number) => void;
    ontake: (photo: Blob) => void;
  }
  let { angle, onturn, ontake }: Props = $props();
  let video = $state<HTMLVideoElement>();
  let live = $state(false);

  // Only an origin that is trusted has a camera; the camera's own file is always there.
  onMount(() => {
    let stream: MediaStream | null = null;
    let left = false;
    navigator.mediaDevices
      ?.getUserMedia({ video: { facingMode: 'environment', width: { ideal: 4096 }, height: { ideal: 3072 } } })
      .then((given) => {
        if (left || !video) return given.getTracks().forEach((track) => track.stop());
        stream = given;
        video.srcObject = given;
        void video.play();
      })
      .catch(() => (live = false));
    return () => {
      left = true;
      stream?.getTracks().forEach((track) => track.stop());
    };
  });

  function snap() {
    if (!video) return;
    const canvas = document.createElement('canvas');
    canvas.width = video.videoWidth;
    canvas.height = video.videoHeight;
    canvas.getContext('2d')?.drawImage(video, 0, 0);
    canvas.toBlob((photo) => photo && ontake(photo), 'image/jpeg', 0.97);
  }
</script>

<div class="relative overflow-hidden rounded-lg bg-black" class:hidden={!live}>
  <video
    bind:this={video}
    class="block max-h-[38vh] w-full object-contain"
    playsinline
    muted
    onloadeddata={() => (live = true)}
  ></video>
  <LayLine {angle} {onturn} />
</div>
<div class="flex flex-wrap gap-2">
  {#if live}<button class="main-button min-h-14" onclick={snap}>Take it</button>{/if}
  <FilePick
    label="The camera’s own file"
    accept="image/jpeg,image/png"
    camera
    class="{live ? 'plain-button' : 'main-button'} min-h-14"
    onfiles={([file]) => file && ontake(file)}>The camera’s own file</FilePick
  >
</div>
