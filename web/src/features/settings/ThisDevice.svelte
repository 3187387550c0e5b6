<!-- A paired device, seen from itself. -->
<script lang="ts">
  import { api, type ThisScreen } from '../../api/client';
  import { letIn } from '../../api/let-in.svelte';
  import { notices } from '../../ui/notices.svelte';
  import TrustCertificate from '../../ui/TrustCertificate.svelte';
  import { when } from './when';

  let { screen }: { screen: ThisScreen } = $props();

  async function leave() {
    try {
      await api.unpair();
      letIn.out = true;
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }
</script>

<section class="panel grid content-start gap-3 p-4" aria-label="This device">
  <h2 class="!text-lg">This device</h2>
  {#if screen.device}
    <p>
      <b>{screen.device.name}</b>, paired {when(screen.device.paired_at)}. It is let in until {when(
        screen.device.until,
      )}; then it is paired again by a new code.
    </p>
    <button class="plain-button touch justify-self-start" onclick={leave}>Remove this device</button>
  {/if}
  <p class="small dim">Backups, and who else is let in, are seen to at the computer that the program runs on.</p>
  {#if screen.secure}
    <TrustCertificate />
  {:else}
    <p class="small font-semibold text-(--stop)" role="alert">
      This connection is not secret: others in this network can read along.
    </p>
  {/if}
</section>
