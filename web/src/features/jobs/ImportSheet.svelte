<!-- Job files, one or many, or an archive of them. -->
<script lang="ts">
  import Dialog from '../../ui/Dialog.svelte';
  import FilePick from '../../ui/FilePick.svelte';

  let { open = $bindable(), ontake }: { open: boolean; ontake: (files: File[]) => void } = $props();
</script>

<Dialog bind:open title="Import job files">
  <FilePick
    label="Job files"
    accept=".json,application/json,.zip,application/zip"
    several
    class="main-button"
    drop="or drop them here, or anywhere on the list of jobs. JSON files, or a ZIP archive of them."
    onfiles={(files) => {
      open = false;
      ontake(files);
    }}>Choose files</FilePick
  >
</Dialog>
