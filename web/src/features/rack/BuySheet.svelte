<!-- What to buy next: tried one by one against all jobs, with its progress; it can be stopped. -->
<script lang="ts">
  import { currency } from '../../api/currency.svelte';
  import { api, type BuyingSearch } from '../../api/client';
  import Dialog from '../../ui/Dialog.svelte';
  import ProgressBar from '../../ui/ProgressBar.svelte';
  import Either from '../../ui/Either.svelte';
  import { shown } from '../../units/shown.svelte';
  import { difference, duration } from '../../units/units';

  let { open = $bindable() }: { open: boolean } = $props();
  let search = $state.raw<BuyingSearch | null>(null);
  let trouble = $state<string | null>(null);
  let by = $state<'minutes' | 'metal' | 'cost'>('minutes');
  const EVERY = 400;

  $effect(() => {
    if (!open) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let left = false;
    const follow = (told: BuyingSearch) => {
      search = told;
      if (left) void api.stopBuying(told.id);
      else if (!told.done) timer = setTimeout(() => void api.buying(told.id).then(follow, said), EVERY);
    };
    const said = (problem: Error) => (trouble = problem.message);
    search = null;
    trouble = null;
    void api.startBuying(by).then(follow, said);
    return () => {
      left = true;
      clearTimeout(timer);
      if (search && !search.done) void api.stopBuying(search.id);
    };
  });

  function gain(one: BuyingSearch['found'][number]): string {
    if (one.opened) return `opens ${one.opened} ${one.opened === 1 ? 'job' : 'jobs'}`;
    if (by === 'minutes') return `saves ${duration(one.minutes)}`;
    return by === 'cost' ? `saves ${currency.money(one.cost)}` : `saves ${shown.say(one.metal_um, 'depth')}`;
  }

  function stop() {
    if (search) void api.stopBuying(search.id);
  }
</script>

<Dialog bind:open wide title="What to buy next">
  <div class="mb-3">
    <Either
      label="What is to be saved"
      value={by}
      options={[
        { id: 'minutes', label: 'Minutes' },
        { id: 'cost', label: 'Abrasives' },
        { id: 'metal', label: 'Metal' },
      ]}
      onchange={(next) => (by = next)}
    />
  </div>
  {#if trouble ?? search?.trouble}<p class="text-(--stop)" role="alert">{trouble ?? search?.trouble}</p>{/if}
  {#if search && !search.done}
    <div class="mb-3 flex items-center gap-3">
      <ProgressBar class="flex-1" value={search.tried} max={search.total || 1} label="Additions tried" />
      <span class="num small">{search.tried} of {search.total}</span>
      <button class="plain-button small" onclick={stop}>Stop</button>
    </div>
  {/if}
  {#each search?.found ?? [] as one (one.tools.join())}
    <section class="mb-2 rounded-lg border border-(--line) bg-(--raised) p-3">
      <h2 class="flex justify-between gap-3">
        <span>{one.labels.join(' and ')}</span>
        <span class="num">{gain(one)}</span>
      </h2>
      <ul class="small">
        {#each one.savings as saving (saving.title)}
          <li class="flex justify-between gap-3">
            <span>{saving.title}</span>
            <span class="num dim">
              {saving.opened
                ? 'becomes possible'
                : `${difference(-saving.minutes)}, cost ${saving.cost >= 0 ? '−' : '+'}${currency.money(Math.abs(saving.cost))}`}
            </span>
          </li>
        {/each}
      </ul>
    </section>
  {:else}
    {#if search?.done}
      <p>Nothing of the catalogue would save anything on these jobs.</p>
    {:else if !trouble}
      <p class="dim" role="status">Planning every job with every addition …</p>
    {/if}
  {/each}
  <p class="small dim">
    All jobs planned from this rack and its machines, every single addition first, then pairs of the most useful.
  </p>
</Dialog>
