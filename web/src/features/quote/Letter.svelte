<!-- The page that the customer gets, as it is printed; what the shop can change on it is pressed where it stands. -->
<script lang="ts">
  import type { Quote } from '../../api/client';
  import Popup from '../../ui/Popup.svelte';
  import { counted } from '../../units/units';
  import type { QuoteDraft } from './quote.svelte';

  interface Props {
    draft: QuoteDraft;
    page: NonNullable<Quote['page']>;
    onshop: () => void;
  }
  let { draft, page, onshop }: Props = $props();
  const DAY = { day: 'numeric', month: 'long', year: 'numeric' } as const;
  const day = (date: string) => new Date(`${date}T12:00:00`).toLocaleDateString('en-GB', DAY);
  const money = (value: number) => `${value.toFixed(2)} ${page.currency}`.trim();
  const ordered = $derived(page.prices.find((one) => one.ordered));
</script>

<article class="letter" aria-label="The customer's page">
  <header class="flex items-start gap-4">
    <button class="min-w-0 flex-1 text-left" onclick={onshop}>
      <span class="sr-only">Shop details: </span>
      {#if page.logo}<img src="/api/shop/logo?at={draft.logo}" alt="" class="mb-2 max-h-14" />{/if}
      <b class="block text-[1.35rem] leading-tight">{page.shop.name || 'Your shop'}</b>
      <span class="dim small block whitespace-pre-line"
        >{[page.shop.address, page.shop.contact].filter(Boolean).join('\n') ||
          'Press to put in your name, address and logo'}</span
      >
    </button>
    <b class="text-[1.7rem]">Quote</b>
  </header>
  <div class="mt-6 grid gap-4 sm:grid-cols-2">
    <div>
      <span class="dim small block">For</span>
      <Popup label="Customer">
        {#snippet face()}<b class="text-[1.05rem]">{page.customer || 'Nobody yet'}</b>{/snippet}
        <label
          ><span class="small dim block">Name</span><input
            class="field"
            maxlength="200"
            value={page.customer}
            onchange={(event) => void draft.changeJob({ customer: event.currentTarget.value })}
          /></label
        >
        <label
          ><span class="small dim block">Address</span><textarea
            class="field"
            rows="3"
            maxlength="400"
            value={page.customer_address}
            onchange={(event) => void draft.changeJob({ customer_address: event.currentTarget.value })}
          ></textarea></label
        >
      </Popup>
      <span class="block whitespace-pre-line">{page.customer_address}</span>
    </div>
    <dl class="facts num">
      <dt>Number</dt>
      <dd>{page.number || 'given when it is saved'}</dd>
      <dt>Date</dt>
      <dd>{day(page.day)}</dd>
      <dt>Valid until</dt>
      <dd>{day(page.valid_until)}</dd>
      {#if page.ready_by}
        <dt>Ready by</dt>
        <dd>{page.ready_by}</dd>
      {/if}
    </dl>
  </div>
  <h2 class="mt-6 text-[1.05rem]!">{page.heading}</h2>
  <table class="lines mt-1 w-full text-left" aria-label="Scope">
    <thead class="small dim"
      ><tr><th class="w-[24%]">Face</th><th class="w-[28%]">As received</th><th>Finish</th></tr></thead
    >
    <tbody>
      {#each page.scope as line (line.face)}
        <tr>
          <td><b>{line.face}</b><span class="dim small block">{line.size}</span></td>
          <td>{line.received}</td>
          <td>{line.finish}</td>
        </tr>
      {/each}
      {#if page.protection}<tr><td><b>Protection</b></td><td></td><td>{page.protection}</td></tr>{/if}
    </tbody>
  </table>
  <table class="lines num mt-5 w-full text-right" aria-label="Prices">
    <thead class="small dim"><tr><th class="text-left">Price</th><th>Each</th><th>Total</th></tr></thead>
    <tbody>
      {#each page.prices as price (price.pieces)}
        <tr class:font-bold={price.ordered}>
          <td class="text-left">{counted(price.pieces, 'piece')}{price.ordered ? ' (as ordered)' : ''}</td>
          <td>{money(price.each)}</td>
          <td>{money(price.total)}</td>
        </tr>
      {/each}
    </tbody>
  </table>
  <dl class="facts num mt-3 ml-auto w-full max-w-72" aria-label="Total">
    <dt>{counted(ordered?.pieces ?? 1, 'piece')}</dt>
    <dd>{money(page.net)}</dd>
    {#if page.tax !== null}
      <dt>{page.shop.tax_name} {Number((100 * page.tax).toPrecision(6))} %</dt>
      <dd>{money(page.tax_money)}</dd>
    {/if}
    <dt class="pay">To pay</dt>
    <dd class="pay">{money(page.to_pay)}</dd>
  </dl>
  {#if page.terms.length}
    <h2 class="mt-5">Terms</h2>
    {#each page.terms as line, at (at)}<p class="small">{line}</p>{/each}
  {/if}
  <div class="small dim mt-12 grid grid-cols-2 gap-8">
    <span class="border-t border-(--line) pt-1">Date and signature{page.shop.name ? `, ${page.shop.name}` : ''}</span>
    <span class="border-t border-(--line) pt-1">Accepted: date and signature</span>
  </div>
</article>

<style>
  .letter {
    max-width: 44rem;
    margin-inline: auto;
    border: 1px solid var(--line);
    background: var(--raised);
    padding: clamp(1rem, 5vw, 3.4rem);
    box-shadow: 0 2px 10px rgb(0 0 0 / 0.12);
  }
  .facts {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 0.15rem 1rem;
    align-content: start;
  }
  dt {
    color: var(--dim);
    font-size: 0.9rem;
  }
  dd {
    text-align: right;
    font-weight: 600;
  }
  .pay {
    border-top: 1.5px solid var(--ink);
    padding-top: 0.3rem;
    color: var(--ink);
    font-size: 1.1rem;
    font-weight: 700;
  }
</style>
