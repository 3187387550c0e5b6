<!-- A device of the shop that is not let in: the code from the main screen, typed once. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { api, type ThisScreen } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import { codeInAddress, grouped } from './code';
  import TrustCertificate from '../../ui/TrustCertificate.svelte';

  const screen = new Answer<ThisScreen>();
  screen.ask(api.thisScreen());
  let code = $state('');
  let name = $state(localStorage.getItem('kelbrast.device') ?? '');
  let trouble = $state('');
  let busy = $state(false);
  let first = $state<HTMLInputElement>();
  let second = $state<HTMLInputElement>();

  onMount(() => {
    code = codeInAddress(location.hash);
    if (code) history.replaceState(null, '', location.pathname); // it is used once, and stands nowhere after that
    (code ? second : first)?.focus();
  });

  async function pair(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    trouble = '';
    try {
      await api.pair(code, name);
      localStorage.setItem('kelbrast.device', name);
      location.reload(); // every page asks anew
    } catch (problem) {
      trouble = (problem as Error).message;
      busy = false;
      first?.select();
    }
  }
</script>

<svelte:head><title>Pair this device – Kelbrast</title></svelte:head>

<main class="flex min-h-dvh flex-col items-center gap-5 overflow-auto p-5">
  <form class="panel mt-[6vh] grid w-full max-w-md gap-4 p-6" onsubmit={pair}>
    <h1>Pair this device with the shop</h1>
    <p>
      On the main screen open <b>Settings, Tablets and phones</b> and press <b>Show a code</b>. Type it here once; this
      device is let in for a month then.
    </p>
    <label class="grid gap-1"
      ><span class="small dim">The code on the main screen</span>
      <input
        bind:this={first}
        class="field mono min-h-14 !text-2xl tracking-widest"
        value={code}
        oninput={(event) => (code = event.currentTarget.value = grouped(event.currentTarget.value))}
        autocomplete="one-time-code"
        autocapitalize="characters"
        spellcheck="false"
        maxlength="40"
        required
      /></label
    >
    <label class="grid gap-1"
      ><span class="small dim">What this device is called in the shop</span>
      <input
        bind:this={second}
        class="field min-h-12"
        bind:value={name}
        placeholder="Tablet at the buffing wheel"
        maxlength="60"
        required
      /></label
    >
    {#if trouble}<p class="font-semibold text-(--stop)" role="alert">{trouble}.</p>{/if}
    <button class="main-button min-h-14" disabled={busy}>{busy ? 'Pairing …' : 'Pair'}</button>
    {#if screen.value && !screen.value.secure}
      <p class="small" role="note">
        This connection is not secret: whoever is in this network can read along. Start the program without
        <span class="mono whitespace-nowrap">--plain</span> to have it secret.
      </p>
    {/if}
  </form>
  {#if screen.value?.secure}<section class="panel w-full max-w-md p-6"><TrustCertificate /></section>{/if}
</main>
