<!-- What holds for this shop and this screen, and the safety of everything that is kept. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import { api, type Shop, type ThisScreen } from '../../api/client';
  import { ShopSettings } from '../../api/shop.svelte';
  import { p } from '../../app/router';
  import { Answer } from '../../ui/answer.svelte';
  import Either from '../../ui/Either.svelte';
  import { notices } from '../../ui/notices.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import ShopSheet from '../../ui/ShopSheet.svelte';
  import { sound } from '../../ui/sound.svelte';
  import TextField from '../../ui/TextField.svelte';
  import UnitsChoice from '../../ui/UnitsChoice.svelte';
  import { theme } from '../../ui/theme.svelte';
  import About from './About.svelte';
  import BackupList from './BackupList.svelte';
  import Devices from './Devices.svelte';
  import FootSwitch from './FootSwitch.svelte';
  import ThisDevice from './ThisDevice.svelte';

  const shop = new ShopSettings();
  void shop.load();
  const screen = new Answer<ThisScreen>();
  screen.ask(api.thisScreen());
  let people = $state(false);

  const change = (next: Partial<Shop>) =>
    shop.change(next).catch((problem: Error) => notices.say(problem.message, 'trouble'));
</script>

<svelte:head><title>Settings – Kelbrast</title></svelte:head>

<div class="mx-auto w-full max-w-5xl flex-1 p-5">
  <h1 class="mb-4">Settings</h1>
  <div class="grid gap-4 md:grid-cols-2">
    <section class="panel grid content-start gap-3 p-4" aria-label="This screen">
      <h2 class="!text-lg">This screen</h2>
      <UnitsChoice />
      <Either
        label="Look"
        value={theme.dark ? 'dark' : 'light'}
        options={[
          { id: 'light', label: 'Paper' },
          { id: 'dark', label: 'Night' },
        ]}
        onchange={(look) => (look === 'dark') !== theme.dark && theme.toggle()}
      />
      <Either
        label="Sounds at the bench"
        value={sound.on ? 'on' : 'off'}
        options={[
          { id: 'off', label: 'Silent' },
          { id: 'on', label: 'Tones for reminders' },
        ]}
        onchange={(on) => (on === 'on') !== sound.on && sound.toggle()}
      />
      <FootSwitch />
    </section>
    <section class="panel grid content-start gap-3 p-4" aria-label="The shop">
      <h2 class="!text-lg">The shop</h2>
      {#if shop.trouble}<p class="text-(--stop)" role="alert">{shop.trouble}</p>{/if}
      {#if shop.value}
        <div class="grid grid-cols-3 gap-3">
          <TextField
            label="Currency"
            value={shop.value.currency ?? ''}
            complaint={(text) => (text.length > 8 ? 'At most 8 letters' : null)}
            onchange={(currency) => void change({ currency })}
          />
          <NumberField label="An hour" lazy value={shop.value.hour} onchange={(hour) => void change({ hour })} />
          <NumberField
            label="Margin, %"
            lazy
            value={100 * (shop.value.margin ?? 0)}
            onchange={(percent) => void change({ margin: percent / 100 })}
            onclear={() => void change({ margin: 0 })}
          />
        </div>
        <p>
          {shop.value.people?.length}
          {shop.value.people?.length === 1 ? 'person' : 'people'}:
          {shop.value.people?.map((one) => `${one.name} ${one.begins} to ${one.ends}`).join(', ')}
        </p>
        <button class="plain-button touch justify-self-start" onclick={() => (people = true)}
          >People, hours and machines</button
        >
      {/if}
      <p>
        <a class="go underline" href={p('/log', { search: { show: 'learnt' } })}>What the shop learnt about itself</a>
      </p>
      <p><a class="go underline" href={p('/log', { search: { show: 'upkeep' } })}>Maintenance that is due</a></p>
    </section>
    {#if screen.value?.screen === 'shop'}
      <ThisDevice screen={screen.value} />
    {:else if screen.value}
      <Devices />
      <BackupList />
    {/if}
    <About />
  </div>
</div>
<ShopSheet
  shop={shop.value}
  machines={choices.all?.machines ?? []}
  bind:open={people}
  onchange={(next) => void change(next as Partial<Shop>)}
/>
