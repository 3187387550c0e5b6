<!-- What it costs: prices for numbers of pieces, what drives them, what a simpler finish would save, and the quotes that were told. -->
<script lang="ts">
  import { LINES } from '../../api/account';
  import { api, type KeptQuote, type Quote } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import CopyTable from '../../ui/CopyTable.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import { notices } from '../../ui/notices.svelte';
  import { duration } from '../../units/units';
  import type { JobDraft } from './draft.svelte';

  let { draft, open = $bindable() }: { draft: JobDraft; open: boolean } = $props();
  const DRIVES = {
    ...LINES,
    abrasives: 'Abrasives',
    'going-back': 'Light checks that fail',
    margin: 'Margin',
  } as const;
  let typed = $state<string | null>(null);
  const usual = $derived([...new Set([1, 5, 20, 100, draft.job.pieces])].sort((a, b) => a - b).join(', '));
  const pieces = $derived(
    (typed ?? usual)
      .split(/[,;\s]+/)
      .map(Number)
      .filter((one) => Number.isInteger(one) && one >= 1 && one <= 100_000)
      .slice(0, 20),
  );
  const quote = new Answer<Quote>();
  const kept = new Answer<KeptQuote[]>();
  const asked = $derived(pieces.map((one) => `pieces=${one}`).join('&'));

  $effect(() => {
    if (open && pieces.length) void look(pieces);
  });

  async function look(numbers: number[]) {
    await draft.save();
    quote.ask(api.quote(draft.id, numbers), true);
    if (!kept.value) kept.ask(api.quotes(draft.id));
  }

  async function keep() {
    try {
      await api.keepQuote(draft.id, pieces);
      kept.ask(api.quotes(draft.id), true);
      if (draft.state === 'asked') await draft.setState('quoted');
      notices.say('The quote is kept with the job.');
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }

  const money = (value: number) => `${value.toFixed(2)} ${quote.value?.currency ?? ''}`.trim();
</script>

<Dialog bind:open title="Quote" wide>
  <label class="block max-w-72">
    <span class="small dim block">Numbers of pieces</span>
    <input class="field num" inputmode="numeric" bind:value={() => typed ?? usual, (text) => (typed = text)} />
  </label>
  {#if quote.trouble}<p class="mt-3 text-(--stop)" role="alert">{quote.trouble}</p>{/if}
  {#if quote.value}
    {@const told = quote.value}
    {@const most = Math.max(...told.prices.map((one) => one.price_each))}
    <table class="num mt-3 w-full" aria-label="Prices">
      <thead class="small dim text-right">
        <tr
          ><th class="text-left">Pieces</th><th>Price</th><th>Each</th><th>Price up to</th><th>Hands-on</th><th
            >Allow up to</th
          ><th><span class="sr-only">Each, as a bar</span></th></tr
        >
      </thead>
      <tbody class="text-right">
        {#each told.prices as one (one.pieces)}
          <tr class="border-t border-(--line)">
            <td class="text-left font-semibold">{one.pieces}</td>
            <td class="text-lg font-bold">{money(one.price)}</td>
            <td>{money(one.price_each)}</td>
            <td class="dim">{money(one.price_high)}</td>
            <td class="dim">{duration(one.hands_on_minutes)}</td>
            <td class="dim">{duration(one.hands_on_minutes_high)}</td>
            <td class="w-32 pl-3"
              ><span class="block h-3 rounded-sm bg-(--t4)" style:width="{(100 * one.price_each) / most}%"></span></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
    <CopyTable />
    <div class="mt-4 grid gap-5 sm:grid-cols-2">
      <section aria-label="What drives it">
        <h2>What drives it</h2>
        <ul>
          {#each told.drives as one (one.name)}
            <li class="grid grid-cols-[1fr_3rem] gap-2">
              <span>{DRIVES[one.name]}</span><span class="num text-right">{Math.round(100 * one.share)} %</span>
            </li>
          {/each}
        </ul>
        <p class="small dim mt-2">
          {told.hour}
          {told.currency} an hour and {Math.round(100 * told.margin)} % margin: change them under Today, People and rates.
        </p>
      </section>
      <section aria-label="What would make it less">
        <h2>Each, with a simpler finish</h2>
        {#if told.humbler.length}
          <ul>
            {#each told.humbler as one (one.finish)}
              <li class="grid grid-cols-[1fr_6rem] gap-2">
                <span>{one.label}</span><span class="num text-right">{money(one.price_each)}</span>
              </li>
            {/each}
          </ul>
        {:else}
          <p class="small dim">None is less work than the one that is wanted.</p>
        {/if}
        {#if told.looser_each !== null && told.looser_each !== undefined}
          <p class="small mt-2">
            If twice as much metal might come off where it is limited: {money(told.looser_each)} each.
          </p>
        {/if}
        {#if told.prices[0] && told.prices[0].hands_on_minutes_high - told.sample_minutes_high > 1}
          <p class="small mt-2">
            A sample piece tells how deep the marks are: then allow {duration(told.sample_minutes_high)} instead of {duration(
              told.prices[0].hands_on_minutes_high,
            )}.
          </p>
        {/if}
      </section>
    </div>
    <div class="mt-4 flex flex-wrap gap-3">
      <button class="main-button" onclick={() => void keep()}>Save quote</button>
      <a class="plain-button" href="/api/jobs/{draft.id}/quote.pdf?{asked}" download>For the customer, PDF</a>
      <a class="plain-button" href="/api/jobs/{draft.id}/quote.pdf?{asked}&inner=true" download>For the shop, PDF</a>
      <a class="plain-button" href="/api/quotes.csv" download>All quotes, CSV</a>
    </div>
    {#if kept.value?.length}
      <h2 class="mt-4">Told before</h2>
      <ul class="small" aria-label="Quotes that were kept">
        {#each kept.value as one (one.id)}
          <li>
            {new Date(one.at).toLocaleDateString()}: {one.quote.prices
              .map((price) => `${price.pieces} for ${money(price.price)}`)
              .join(', ')}
            {one.quote.currency}{one.actual === null
              ? ''
              : `; the run after it took ${one.actual.toFixed(2)} times its plan`}
          </li>
        {/each}
      </ul>
    {/if}
  {/if}
</Dialog>
