<!-- What was done here: every run, what went wrong, what was learnt, the house ways, and what is due. -->
<script lang="ts">
  import { searchParams } from 'sv-router';
  import Either from '../../ui/Either.svelte';
  import EyeRight from './EyeRight.svelte';
  import Learnt from './Learnt.svelte';
  import PromisesKept from './PromisesKept.svelte';
  import RunList from './RunList.svelte';
  import Upkeep from './Upkeep.svelte';
  import Ways from './Ways.svelte';
  import WhatWentWrong from './WhatWentWrong.svelte';

  const TABS = [
    { id: 'runs', label: 'Runs' },
    { id: 'wrong', label: 'What went wrong?' },
    { id: 'learnt', label: 'Learnt' },
    { id: 'ways', label: 'House ways' },
    { id: 'upkeep', label: 'Upkeep' },
  ] as const;
  type Tab = (typeof TABS)[number]['id'];
  const ABOUT: Record<Tab, string> = {
    runs: 'Every run at the bench: planned and as it was.',
    wrong: 'What is seen, why, what cures it, and what avoids it next time.',
    learnt: 'How this shop differs from the published figures, from its own runs.',
    ways: 'Plans that worked well here, offered beside the computed ones.',
    upkeep: 'Wheels, hand tools, filters and waxed work: due from use and by the calendar.',
  };
  const shownTab = $derived<Tab>(TABS.find((tab) => tab.id === searchParams.get('show'))?.id ?? 'runs');
</script>

<svelte:head><title>Log – Kelbrast</title></svelte:head>

<div class="mx-auto w-full max-w-6xl flex-1 p-5">
  <div class="mb-4 flex flex-wrap items-end gap-x-4 gap-y-2">
    <h1 class="flex-1">Log</h1>
    <div class="w-full max-w-[44rem]">
      <Either
        label="Part of the log"
        value={shownTab}
        options={TABS}
        onchange={(tab) => searchParams.set('show', tab)}
      />
    </div>
    <p class="small dim w-full">{ABOUT[shownTab]}</p>
  </div>
  {#if shownTab === 'runs'}<RunList />
  {:else if shownTab === 'wrong'}<WhatWentWrong />
  {:else if shownTab === 'learnt'}<Learnt /><PromisesKept /><EyeRight />
  {:else if shownTab === 'ways'}<Ways />
  {:else}<Upkeep />{/if}
</div>
