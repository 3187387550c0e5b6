<!-- Tablets and phones in the shop: the door to its network, a code to pair one, and the list of those that are let in. -->
<script lang="ts">
  import Fold from '../../ui/Fold.svelte';
  import { onDestroy } from 'svelte';
  import { api, type Devices } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import { notices } from '../../ui/notices.svelte';
  import TrustCertificate from '../../ui/TrustCertificate.svelte';
  import { when } from './when';

  const LOOK_MS = 2000;
  const known = new Answer<Devices>();
  known.ask(api.devices());
  let showing = $state(false);
  let place = $state(0);
  let before = 0;
  let now = $state(Date.now());
  const code = $derived(known.value?.code ?? null);
  const left = $derived(code ? Math.max(0, Math.round((Date.parse(code.until) - now) / 1000)) : 0);

  // While a code is shown, it is looked whether somebody gave it.
  const look = setInterval(() => showing && known.ask(api.devices(), true), LOOK_MS);
  const tick = setInterval(() => (now = Date.now()), 1000);
  onDestroy(() => {
    clearInterval(look);
    clearInterval(tick);
    if (showing) void api.hideCode();
  });
  const paired = $derived(known.value?.devices.find((one) => one.id > before));

  async function doing(act: () => Promise<unknown>) {
    try {
      await act();
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }
  const show = () =>
    doing(async () => {
      before = Math.max(0, ...(known.value?.devices.map((one) => one.id) ?? []));
      known.value = await api.showCode();
      showing = true;
    });
  function closed() {
    showing = false;
    void doing(api.hideCode);
  }
  const takeOff = (id: number, name: string) =>
    doing(async () => {
      await api.takeOff(id);
      known.ask(api.devices(), true);
      notices.say(`${name} is not let in any more.`);
    });
</script>

<section class="panel grid content-start gap-3 p-4" aria-label="Tablets and phones">
  <div class="flex items-center gap-3">
    <h2 class="flex-1 !text-lg">Tablets and phones</h2>
    {#if known.value?.open}<button class="plain-button touch" onclick={show}>Show a code</button>{/if}
  </div>
  {#if known.trouble}<p class="text-(--stop)" role="alert">{known.trouble}</p>{/if}
  {#if known.value && !known.value.open}
    <p class="small dim">
      The program answers this computer only. To have the bench on a tablet, start it with
      <span class="mono">kelbrast serve --shop</span>: it then lets devices in that you pair here.
    </p>
  {:else if known.value}
    {#if !known.value.secure}
      <p class="small font-semibold text-(--stop)" role="alert">
        Open without a certificate: whoever is in this network can read along and take a device’s place, and the bench
        does not open without a connection. Start it without <span class="mono whitespace-nowrap">--plain</span>.
      </p>
    {/if}
    <ul class="grid gap-1" aria-label="Devices that are let in">
      {#each known.value.devices as one (one.id)}
        <li class="flex flex-wrap items-center gap-x-3 border-t border-(--line) py-1">
          <span class="flex-1"
            >{one.name} <span class="small dim">seen {when(one.seen_at)}, until {when(one.until)}</span></span
          >
          <button class="plain-button" aria-label="Take off {one.name}" onclick={() => takeOff(one.id, one.name)}
            >Take off</button
          >
        </li>
      {:else}
        <li class="dim">None is paired yet.</li>
      {/each}
    </ul>
    {#if known.value.secure}
      <Fold label="The certificate, for work without a connection" class="small">
        <div class="mt-2"><TrustCertificate fingerprint={known.value.fingerprint} /></div>
      </Fold>
    {/if}
  {/if}
</section>
<Dialog bind:open={() => showing, (open) => open || closed()} title="Pair a tablet or phone">
  {#if paired}
    <p class="text-xl" role="status"><b>{paired.name}</b> is let in.</p>
  {:else if code}
    <div class="grid gap-5 sm:grid-cols-[auto_1fr]">
      <img
        class="h-52 w-52 rounded-md bg-white"
        src={code.places[place]?.qr}
        alt="The address and the code, for a camera"
      />
      <div class="grid content-start gap-3">
        <p>
          On the device open
          <select class="field-choice" aria-label="Address" bind:value={place}>
            {#each code.places as one, at (one.address)}<option value={at}>{one.address}</option>{/each}
          </select>
          or point its camera at the picture, and give this code:
        </p>
        <p class="mono text-4xl font-bold tracking-widest" aria-label="Code">{code.code}</p>
        <p class="small dim">It is used once, and holds for {Math.floor(left / 60)} min {left % 60} s more.</p>
        {#if known.value?.secure}
          <p class="small dim">
            The device warns once that nobody it knows vouches for this computer: go on to it, the two of you are in the
            same room.
          </p>
        {/if}
      </div>
    </div>
  {:else}
    <p>The code holds no more. <button class="go underline" onclick={show}>Show another</button></p>
  {/if}
  {#if known.value?.wrong}
    {@const { address, times } = known.value.wrong}
    <p class="mt-3 font-semibold text-(--stop)" role="alert">
      {times} wrong {times === 1 ? 'code' : 'codes'}, the last from {address}. If that was nobody here, somebody else is
      in this network.
    </p>
  {/if}
</Dialog>
