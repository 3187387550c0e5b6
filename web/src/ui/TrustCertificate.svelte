<!-- Why a device should trust the shop's own certificate, and how. -->
<script lang="ts">
  let { fingerprint = '' }: { fingerprint?: string } = $props();
</script>

<h2 class="!text-lg">So that it works without a connection too</h2>
<p class="small mt-2">
  A browser keeps pages and taps for later only from a computer that it trusts. This one vouches for itself; nobody else
  does.
  <a class="go underline" href="/api/shop-certificate.crt" download>Take its certificate</a>, open it on the device, and
  let the device trust it as an authority: on most under Settings, Security, Certificates. It can only vouch for this
  computer’s names and for addresses of private networks.
</p>
{#if fingerprint}
  <p class="small mt-2">
    Before you trust it, compare its SHA-256 fingerprint with what the device shows:
    <span class="mono block break-all">{fingerprint}</span>
  </p>
{/if}
