<!-- A quote: the page that the customer gets, and beside it what only the shop sees. -->
<script lang="ts">
  import Printer from '@lucide/svelte/icons/printer';
  import { navigate, p, route } from '../../app/router';
  import type { Group } from '../../ui/ActionMenu.svelte';
  import OptionsMenu from '../../ui/OptionsMenu.svelte';
  import { useKeys } from '../../ui/keys.svelte';
  import { notices } from '../../ui/notices.svelte';
  import Sheet from '../../ui/Sheet.svelte';
  import { shown } from '../../units/shown.svelte';
  import InnerSide from './InnerSide.svelte';
  import Letter from './Letter.svelte';
  import { QuoteDraft } from './quote.svelte';

  const draft = $derived(new QuoteDraft(Number(route.params.id)));
  let shopOpen = $state(false);
  $effect(() => void draft.load());
  $effect(() => {
    void shown.system;
    draft.look();
  });
  const quote = $derived(draft.quote);
  const page = $derived(quote?.page);
  const asked = $derived(
    `${draft.pieces.map((one) => `pieces=${one}`).join('&')}${shown.system === 'inch' ? '&inch=true' : ''}`,
  );
  const back = () => void navigate('/jobs/:id', { params: { id: String(draft.id) } });

  async function save() {
    const address = await draft.save();
    if (!address) return;
    notices.say('The quote is saved with the job.');
    window.open(address, '_blank', 'noopener');
  }

  const options = $derived.by((): Group[] => [
    {
      actions: [
        { id: 'shop', label: 'Shop details', run: () => (shopOpen = true) },
        { id: 'draft', label: 'Draft as PDF', href: `/api/jobs/${draft.id}/quote.pdf?${asked}` },
        { id: 'inner', label: 'The shop’s page as PDF', href: `/api/jobs/${draft.id}/quote.pdf?${asked}&inner=true` },
        { id: 'csv', label: 'All saved quotes (CSV)', href: '/api/quotes.csv', download: true },
        { id: 'plan', label: 'Back to the plan', shown: 'Esc', run: back },
      ],
    },
  ]);
  useKeys('Quote', [{ press: 'Escape', shown: 'Esc', does: 'Back to the plan', run: back }]);
</script>

<svelte:head><title>Quote: {draft.job?.title ?? ''} – Kelbrast</title></svelte:head>

<div class="flex flex-1 flex-col p-3.5 md:px-4.5">
  <header class="mb-2.5 flex flex-wrap items-start gap-x-3 gap-y-2">
    <div class="min-w-56 flex-1">
      <h1>Quote</h1>
      <p class="dim">
        <a class="underline" href={p('/jobs/:id', { params: { id: String(draft.id) } })}>{draft.job?.title ?? ''}</a>
        · {page?.customer || 'no customer yet'} · draft
      </p>
    </div>
    <OptionsMenu groups={options} />
    <button class="main-button" disabled={!page || draft.busy} onclick={() => void save()}
      ><Printer size={16} aria-hidden="true" />Save and print</button
    >
  </header>
  {#if draft.said}<p class="panel p-4 text-(--stop)" role="alert">{draft.said}</p>{/if}
  {#if quote && page}
    <div class="columns">
      <Letter {draft} {page} onshop={() => (shopOpen = true)} />
      <div class="grid content-start gap-3"><InnerSide {draft} {quote} /></div>
    </div>
  {:else if !draft.said}<p class="dim p-4" role="status">Pricing …</p>{/if}
</div>
<Sheet load={() => import('./LetterheadSheet.svelte')} props={{ draft }} bind:open={shopOpen} />

<style>
  .columns {
    display: grid;
    gap: 0.9rem;
  }
  @media (min-width: 64rem) {
    .columns {
      grid-template-columns: minmax(0, 1fr) 26rem;
      align-items: start;
    }
  }
</style>
