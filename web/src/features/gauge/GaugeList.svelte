<!-- Everything that is worked to size, and a form for the next. -->
<script lang="ts">
  import Trash from '@lucide/svelte/icons/trash-2';
  import { api, type KeptSizing, type SizingPage } from '../../api/client';
  import { navigate, p } from '../../app/router';
  import { Answer } from '../../ui/answer.svelte';
  import { notices } from '../../ui/notices.svelte';
  import { shown } from '../../units/shown.svelte';
  import { MOVES, readText, sizeText } from '../../ui/moves';
  import NewPart from './NewPart.svelte';

  const PAGE = 50;
  const MOST = 500;
  let most = $state(PAGE);
  let words = $state('');
  const known = new Answer<SizingPage>();
  const load = () => known.ask(api.sizings(most, words), true);
  load();
  const parts = $derived(known.value?.sizes);

  async function remove(part: KeptSizing) {
    try {
      await api.removeSizing(part.id);
      load();
      notices.say(`${part.size.title} is deleted`, 'done', {
        label: 'Undo',
        run: () => void api.addSizing(part.size).then(load),
      });
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }
</script>

<svelte:head><title>Gauge – Kelbrast</title></svelte:head>

<div class="mx-auto w-full max-w-6xl flex-1 p-5">
  <h1>Gauge</h1>
  <p class="small dim">
    Bores and shafts that are lapped, filed or polished to size: the form from a few readings, how long to work before
    the next one, and when to stop.
  </p>
  <p class="mb-4 flex gap-5">
    <a class="go underline" href="/gauge/pair">A shaft and its bore beside each other</a>
    <a class="go underline" href="/gauge/practice">Practise on an invented bore</a>
  </p>
  <div class="grid gap-6 lg:grid-cols-[minmax(0,1fr)_22rem]">
    <div class="min-w-0">
      {#if known.trouble}<p class="text-(--stop)" role="alert">{known.trouble}</p>{/if}
      {#if words || (known.value && known.value.count > PAGE)}
        <input
          class="field mb-3"
          type="search"
          placeholder="Words of a title"
          aria-label="Search the parts"
          bind:value={words}
          oninput={load}
        />
      {/if}
      {#if parts?.length === 0 && !words}<p>Nothing is worked to size yet. Describe the first part beside.</p>{/if}
      <ul class="flex flex-col gap-2">
        {#each parts ?? [] as part (part.id)}
          {@const answer = part.answer}
          <li class="flex items-center gap-3 rounded-lg border border-(--line) bg-(--card) p-3">
            <a class="min-w-0 flex-1 hover:underline" href={p('/gauge/:id', { params: { id: String(part.id) } })}>
              <span class="block font-semibold">{part.size.title}</span>
              <span class="small dim block"
                >{part.size.kind === 'bore' ? 'Bore' : 'Shaft'}{#if answer}, {readText(
                    answer.now_mm,
                    shown.system,
                    part.size.gauge.repeatability_um,
                  )} of {sizeText(answer.limits_mm[0], shown.system)} to {sizeText(answer.limits_mm[1], shown.system)}
                  {shown.unit('length')}{/if}</span
              >
            </a>
            <span class="font-semibold" class:text-(--go)={answer?.next.move === 'stop'}
              >{MOVES[answer?.next.move ?? 'measure'](
                part.size.lap ? 'lap' : (part.size.lathe?.turned_by ?? 'lap'),
              )}</span
            >
            <button
              class="plain-button !p-2"
              onclick={() => void remove(part)}
              aria-label="Delete {part.size.title}"
              title="Delete"><Trash size={17} /></button
            >
          </li>
        {/each}
        {#each known.value?.unreadable ?? [] as part (part.id)}
          <li class="rounded-lg border border-(--line) bg-(--card) p-3">
            <span class="font-semibold">{part.title}</span>
            <span class="block text-(--stop)">This version cannot read it: {part.reason}</span>
            <a class="go underline" href="/api/sizes/{part.id}/file" download>Save it as it is</a>
          </li>
        {/each}
      </ul>
      {#if known.value && known.value.count > most}
        <p class="small dim mt-2">
          The {most} changed last, of {known.value.count}.
          {#if most < MOST}<button class="go underline" onclick={() => ((most += PAGE), load())}>Show more</button>{/if}
        </p>
      {/if}
    </div>
    <NewPart parts={parts ?? []} onadded={(part) => void navigate('/gauge/:id', { params: { id: String(part.id) } })} />
  </div>
</div>
