<!-- Everything that is worked to size, and a form for the next. -->
<script lang="ts">
  import Trash from '@lucide/svelte/icons/trash-2';
  import { api, type KeptSizing } from '../../api/client';
  import { navigate, p } from '../../app/router';
  import { Answer } from '../../ui/answer.svelte';
  import { notices } from '../../ui/notices.svelte';
  import { shown } from '../../units/shown.svelte';
  import { MOVES, sizeText } from '../../ui/moves';
  import NewPart from './NewPart.svelte';

  const known = new Answer<KeptSizing[]>();
  const load = () => known.ask(api.sizings(), true);
  load();
  const parts = $derived(known.value);

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
      {#if parts?.length === 0}<p>Nothing is worked to size yet. Describe the first part beside.</p>{/if}
      <ul class="flex flex-col gap-2">
        {#each parts ?? [] as part (part.id)}
          {@const answer = part.answer}
          <li class="flex items-center gap-3 rounded-lg border border-(--line) bg-(--card) p-3">
            <a class="min-w-0 flex-1 hover:underline" href={p('/gauge/:id', { params: { id: String(part.id) } })}>
              <span class="block font-semibold">{part.size.title}</span>
              <span class="small dim block"
                >{part.size.kind === 'bore' ? 'Bore' : 'Shaft'}{#if answer}, {sizeText(answer.now_mm, shown.system)} of {sizeText(
                    answer.limits_mm[0],
                    shown.system,
                  )} to {sizeText(answer.limits_mm[1], shown.system)}
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
      </ul>
    </div>
    <NewPart parts={parts ?? []} onadded={(part) => void navigate('/gauge/:id', { params: { id: String(part.id) } })} />
  </div>
</div>
