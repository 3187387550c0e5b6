<!-- Light: two patches under one lamp, and practice in reading them. -->
<script lang="ts">
  import { searchParams } from 'sv-router';
  import Either from '../../ui/Either.svelte';
  import AskEye from './AskEye.svelte';
  import LampBench from './LampBench.svelte';
  import Practice from './Practice.svelte';

  const TABS = [
    { id: 'lamp', label: 'The lamp' },
    { id: 'eye', label: 'The eye' },
    { id: 'practice', label: 'Practice' },
  ] as const;
  type Tab = (typeof TABS)[number]['id'];
  const shownTab = $derived<Tab>(TABS.find((tab) => tab.id === searchParams.get('show'))?.id ?? 'lamp');
  const ABOUT = {
    lamp: 'Simulated by the laws that the plans are made of. Move the lamp: marks across it flare, marks along it hide.',
    eye: 'A second opinion at a light check, from two photos. Your lamp and your eye decide.',
    practice: 'Ten short questions. They get harder as you get better.',
  };
</script>

<svelte:head><title>Light – Kelbrast</title></svelte:head>

<div class="mx-auto w-full max-w-6xl flex-1 p-5">
  <div class="mb-4 flex flex-wrap items-end gap-4">
    <div class="min-w-64 flex-1">
      <h1>Light</h1>
      <p class="small dim">{ABOUT[shownTab]}</p>
    </div>
    <div class="w-80">
      <Either
        label="Part of the light"
        value={shownTab}
        options={TABS}
        onchange={(tab) => searchParams.set('show', tab)}
      />
    </div>
  </div>
  {#if shownTab === 'lamp'}<LampBench />{:else if shownTab === 'eye'}<AskEye />{:else}<Practice />{/if}
</div>
