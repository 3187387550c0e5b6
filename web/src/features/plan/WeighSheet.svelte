<!-- Everything to weigh on the face in hand: the bet on its depth, and the best trade-offs. -->
<script lang="ts">
  import { currency } from '../../api/currency.svelte';
  import CopyTable from '../../ui/CopyTable.svelte';
  import type { Advice, FrontRoute } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import RoutesChart from '../../charts/RoutesChart.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import Either from '../../ui/Either.svelte';
  import { shown } from '../../units/shown.svelte';
  import { duration, figures } from '../../units/units';
  import type { JobDraft } from './draft.svelte';
  import Ways from './Ways.svelte';

  let { draft, open = $bindable() }: { draft: JobDraft; open: boolean } = $props();
  const answer = new Answer<Advice>();
  const advice = $derived(answer.value);
  const inHand = $derived(draft.facePlan?.steps.map((step) => step.tool).join() ?? '');
  const bet = $derived(advice?.bet);
  let side = $state<'metal' | 'cost'>('metal');
  let at = $state(0);
  /** The best trade-offs, and what a school would take although another is better. */
  const routes = $derived.by(() => {
    const front = advice?.front ?? [];
    const known = new Set(front.map((route) => route.tools.join()));
    const others = (advice?.named ?? []).filter((route) => !known.has(route.tools.join()));
    return [...front, ...others].sort((a, b) => a.minutes - b.minutes);
  });
  const names = $derived(new Map((advice?.named ?? []).map((route) => [route.tools.join(), route.names])));
  const points = $derived(
    routes.map((route) => ({
      minutes: route.minutes,
      value: side === 'metal' ? route.metal_um : route.cost,
      changes: route.changes,
      names: names.get(route.tools.join()) ?? [],
    })),
  );
  const chosen = $derived(routes[at]);
  const named = (route: FrontRoute) => names.get(route.tools.join())?.join(', ') ?? '';

  $effect(() => {
    if (open) {
      at = 0;
      answer.ask(draft.advice());
    }
  });

  function take(route: FrontRoute) {
    draft.setWish({ route: route.tools });
    open = false;
  }

  function startWith(tool: string) {
    draft.setWish({ ...draft.wish, start: tool, route: [] });
    open = false;
  }
</script>

<Dialog bind:open wide title="Compare ways">
  <Ways {draft} />
  <h2 class="mt-3 mb-1">Best trade-offs for {draft.face?.name ?? ''}</h2>
  {#if answer.trouble}<p class="text-(--stop)" role="alert">{answer.trouble}</p>{/if}
  {#if bet}
    <section class="mb-3 rounded-lg border border-(--line) bg-(--raised) p-3">
      <h2>The depth is a guess</h2>
      <p>
        <b>{bet.coarse_label}</b> at once: some <b class="num">{duration(bet.sure_minutes)}</b>.
        <b>{bet.fine_label}</b>
        on a patch of {shown.say(bet.patch_cm2, 'area')} first, and back if it does not clear: some
        <b class="num">{duration(bet.trying_minutes)}</b>, {duration(bet.trial_minutes)} of it on the patch.
      </p>
      <p class="mt-1">
        {bet.try_first
          ? 'Try the finer one on a patch first.'
          : 'Start with the coarser one: the trial costs more than it saves.'}
        The finer one is the right one about {Math.round(bet.clears * 10)} times in 10.
      </p>
      <div class="mt-2 flex gap-2">
        <button class="plain-button small" onclick={() => startWith(bet.coarse)}>Start with {bet.coarse_label}</button>
        <button class="plain-button small" onclick={() => startWith(bet.fine)}>Start with {bet.fine_label}</button>
      </div>
    </section>
  {/if}
  {#if advice?.front.length}
    <h2>
      {advice.front.length === 1 ? 'One way is best in everything' : `${advice.front.length} best trade-offs`}
    </h2>
    <p class="small dim mb-1">No other way is better in minutes, removal, cost and changes at once.</p>
    <div class="grid gap-x-5 gap-y-2 lg:grid-cols-[minmax(0,1fr)_auto]">
      <div class="min-w-0 self-start lg:sticky lg:top-0">
        <Either
          label="Up the side"
          value={side}
          options={[
            { id: 'metal', label: 'Metal off' },
            { id: 'cost', label: 'Cost' },
          ]}
          onchange={(way) => (side = way)}
        />
        <RoutesChart
          {points}
          side={side === 'metal' ? `off, ${shown.unit('depth')}` : 'cost of abrasives'}
          said={(value) => (side === 'metal' ? shown.bare(value, 'depth') : figures(value, 2))}
          selected={at}
          inHand={routes.findIndex((route) => route.tools.join() === inHand)}
          onselect={(next) => (at = next)}
          ontake={(next) => routes[next] && take(routes[next])}
        />
        {#if chosen}
          <div class="small mt-1" aria-live="polite" aria-label="Selected way" role="region">
            <b>{duration(chosen.minutes)}</b> · {shown.say(chosen.metal_um, 'depth')} · cost {currency.money(
              chosen.cost,
            )} · {chosen.changes}
            {chosen.changes === 1 ? 'change' : 'changes'}{named(chosen) ? `. ${named(chosen)}` : ''}
            <ol class="mt-0.5 list-decimal pl-5">
              {#each chosen.labels as label, step (step)}<li>{label}</li>{/each}
            </ol>
          </div>
        {/if}
      </div>
      <table class="small">
        <thead>
          <tr class="dim text-left">
            <th>Minutes</th><th>Metal</th><th>Cost</th><th>Changes</th><th>Steps</th><th
              ><span class="sr-only">Use</span></th
            >
          </tr>
        </thead>
        <tbody>
          {#each routes as route, row (route.tools.join())}
            <tr
              class="border-t border-(--line)"
              class:bg-(--raised)={row === at}
              class:font-semibold={route.tools.join() === inHand}
              onmouseenter={() => (at = row)}
              onfocusin={() => (at = row)}
              onclick={() => (at = row)}
            >
              <td class="num">{duration(route.minutes)}</td>
              <td class="num">{shown.say(route.metal_um, 'depth')}</td>
              <td class="num">{currency.money(route.cost)}</td>
              <td class="num">{route.changes}</td>
              <td class="num">{route.tools.length}</td>
              <td class="text-right">
                {#if route.tools.join() === inHand}in hand{:else}
                  <button class="min-w-[2rem] underline" onclick={() => take(route)}
                    >Use<span class="sr-only">
                      the way of {duration(route.minutes)}: {route.labels.join(', ')}</span
                    ></button
                  >
                {/if}
              </td>
            </tr>
          {/each}
        </tbody>
      </table>
      <CopyTable />
    </div>
  {:else if advice}
    <p>
      {draft.face?.keep_off ? 'Nothing may touch this face.' : 'No plan reaches this finish; the plan says why.'}
    </p>
  {:else if !answer.trouble}
    <p class="dim" role="status">Comparing every way …</p>
  {/if}
</Dialog>

<style>
  td,
  th {
    padding: 0.22rem 0.7rem 0.22rem 0;
    vertical-align: baseline;
    font-weight: inherit;
  }
  td.num {
    white-space: nowrap;
  }
</style>
