<!-- Files from this device: a button, or a place to drop them on as well. Nothing is held: each choice is handed on. -->
<script lang="ts">
  import { FileUpload } from '@skeletonlabs/skeleton-svelte';
  import type { Snippet } from 'svelte';

  interface Props {
    /** What the files are, for who cannot see where the button stands. */
    label: string;
    /** As the browser knows types and endings; others are handed on too, and refused where they are read. */
    accept: string;
    several?: boolean;
    /** With the camera on the back of the device. */
    camera?: boolean;
    disabled?: boolean;
    /** How the button looks. */
    class?: string;
    /** Words beside the button, on a place to drop files on. */
    drop?: string;
    onfiles: (files: File[]) => void;
    children: Snippet;
  }
  let {
    label,
    accept,
    several = false,
    camera = false,
    disabled = false,
    class: looks = 'plain-button',
    drop,
    onfiles,
    children,
  }: Props = $props();
</script>

<FileUpload
  accept={accept.split(',')}
  acceptedFiles={[]}
  maxFiles={several ? 1000 : 1}
  capture={camera ? 'environment' : undefined}
  allowDrop={drop !== undefined}
  {disabled}
  class="contents"
  onFileChange={({ acceptedFiles, rejectedFiles }) => {
    const files = [...acceptedFiles, ...rejectedFiles.map((one) => one.file)];
    if (files.length) onfiles(files);
  }}
>
  <FileUpload.HiddenInput aria-label={label} />
  {#if drop === undefined}
    <FileUpload.Trigger class={looks}>{@render children()}</FileUpload.Trigger>
  {:else}
    <FileUpload.Dropzone disableClick>
      <FileUpload.Trigger class={looks}>{@render children()}</FileUpload.Trigger>
      <p class="small dim">{drop}</p>
    </FileUpload.Dropzone>
  {/if}
</FileUpload>
