<!-- What only the shop sees: the price, what it is made of, what would make it less, and the quotes that were sent. -->
<script lang="ts">
  import { LINES } from '../../api/account';
  import type { Quote } from '../../api/client';
  import NumberField from '../../ui/NumberField.svelte';
  import { duration } from '../../units/units';
  import type { QuoteDraft } from './quote.svelte';

  let { draft, quote }: { draft: QuoteDraft; quote: Quote } = $props();
  const DRIVES = {
    ...LINES,
    abrasives: 'Abrasives',
    'going-back': 'Failed checks',
    margin: 'Margin',
  } as const;
  const SHADES = [88, 66, 48, 36, 26, 18];
  const ordered = $derived(quote.prices.find((one) => one.pieces === quote.basis) ?? quote.prices[0]);
  const money = (value: number) => `${value.toFixed(2)} ${quote.currency}`.trim();
  const parts = $derived(
    quote.drives.map((one, at) => ({
      ...one,
      label: DRIVES[one.name],
      colour: one.name === 'margin' ? 'var(--go)' : `color-mix(in srgb, var(--ink) ${SHADES[at] ?? 14}%, var(--paper))`,
    })),
  );
  const letterhead = $derived(draft.shop.value?.letterhead);
</script>

<section class="panel px-4 py-3" aria-label="Only the shop sees this">
  {#if ordered}
    <div class="flex items-baseline gap-2">
      <h2 class="flex-1">For {ordered.pieces} {ordered.pieces === 1 ? 'piece' : 'pieces'}</h2>
      <span class="small dim">only you see this</span>
    </div>
    <p class="num">
      <b class="block text-[1.7rem] leading-tight">{money(ordered.price)}</b>
      <span class="dim">{money(ordered.price_each)} each · {duration(ordered.hands_on_minutes)} hands-on</span>
    </p>
    <p class="small dim">
      If it takes all that is allowed, {duration(ordered.hands_on_minutes_high)}: {money(ordered.price_high)}.
    </p>
    <div class="bar" aria-hidden="true">
      {#each parts as part (part.name)}<span style:flex-grow={part.share} style:background={part.colour}></span>{/each}
    </div>
    <ul class="num divide-y divide-(--line)" aria-label="What it is made of">
      {#each parts as part (part.name)}
        <li class="grid grid-cols-[1rem_1fr_3.5rem_6.5rem] items-center gap-2 py-1.5">
          <span class="key" style:background={part.colour}></span>{part.label}
          <span class="dim text-right">{Math.round(100 * part.share)} %</span>
          <b class="text-right">{money(part.share * ordered.price)}</b>
        </li>
      {/each}
    </ul>
  {/if}
</section>
<section class="panel px-4 py-3" aria-label="What would make it less">
  <h2>A simpler finish saves</h2>
  {#if quote.humbler.length && ordered}
    <ul class="num divide-y divide-(--line)">
      {#each quote.humbler as one (one.finish)}
        <li class="grid grid-cols-[1fr_auto_3.4rem] gap-2 py-1.5">
          <span>{one.label}</span><span>{money(one.price_each)} each</span>
          <b class="text-right text-(--go)">−{Math.round(100 * (1 - one.price_each / ordered.price_each))} %</b>
        </li>
      {/each}
    </ul>
  {:else}<p class="small dim">None saves enough to be offered.</p>{/if}
  {#if quote.looser_each !== null && quote.looser_each !== undefined}
    <p class="small mt-2">If twice as much could come off where it is limited: {money(quote.looser_each)} each.</p>
  {/if}
  {#if quote.prices[0] && quote.prices[0].hands_on_minutes_high - quote.sample_minutes_high > 1}
    <p class="small mt-2">
      A sample piece tells how deep the marks are: then allow {duration(quote.sample_minutes_high)} instead of {duration(
        quote.prices[0].hands_on_minutes_high,
      )}.
    </p>
  {/if}
</section>
<section class="panel grid grid-cols-2 gap-3 px-4 py-3" aria-label="What the price follows from">
  <label class="min-w-0">
    <span class="small dim block">Pieces to quote</span>
    <input
      class="field num"
      inputmode="numeric"
      bind:value={() => draft.typed ?? draft.usual, (text) => ((draft.typed = text), draft.look())}
    />
  </label>
  {#if letterhead}
    <NumberField
      label="Valid for, days"
      integer
      value={letterhead.valid_days ?? 30}
      onchange={(valid_days) => void draft.changeShop({ letterhead: { ...letterhead, valid_days } })}
    />
  {/if}
  <NumberField
    label="{quote.currency} an hour"
    value={draft.shop.value?.hour ?? null}
    onchange={(hour) => void draft.changeShop({ hour })}
  />
  <NumberField
    label="Margin, %"
    value={(draft.shop.value?.margin ?? 0) * 100}
    onchange={(margin) => void draft.changeShop({ margin: margin / 100 })}
  />
</section>
{#if draft.saved.length}
  <section class="panel px-4 py-3" aria-label="Saved quotes">
    <h2>Saved quotes</h2>
    <ul class="num divide-y divide-(--line)">
      {#each draft.saved as one (one.id)}
        <li class="py-1.5">
          <a class="go font-semibold underline" href="/api/quotes/{one.id}.pdf" target="_blank" rel="noopener"
            >{one.quote.page?.number || 'Quote'}</a
          >
          <span class="dim">
            {new Date(one.at).toLocaleDateString('en-GB')}: {one.quote.prices
              .map((price) => `${price.pieces} for ${price.price.toFixed(2)} ${one.quote.currency}`.trim())
              .join(', ')}{one.actual === null ? '' : `; the work took ${one.actual.toFixed(2)} × its plan`}
          </span>
        </li>
      {/each}
    </ul>
  </section>
{/if}

<style>
  .bar {
    display: flex;
    height: 1.6rem;
    gap: 2px;
    margin-block: 0.5rem;
  }
  .bar span {
    min-width: 2px;
    border-radius: 3px;
  }
  .key {
    width: 0.75rem;
    height: 0.75rem;
    border-radius: 3px;
  }
</style>
