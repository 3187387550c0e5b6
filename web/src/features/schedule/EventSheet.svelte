<!-- Something happened: said in two choices, what it does to every promise in one sentence, and then told to the schedule. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import { api, type Board, type DayEffect } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import Choice from '../../ui/Choice.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import { eventOf, KINDS, untilOf, type EventKind } from './events';
  import type { Schedule } from './schedule.svelte';

  interface Props {
    schedule: Schedule;
    board: Board;
    people: string[];
    /** What is said to have happened, to begin with. */
    kind: EventKind;
    open: boolean;
  }
  let { schedule, board, people, kind: first, open = $bindable() }: Props = $props();
  let kind = $state<EventKind>('away');
  $effect(() => {
    if (open) {
      kind = first;
      chosen = until = '';
    }
  });
  let chosen = $state('');
  let until = $state('');
  const told = new Answer<DayEffect>();
  const TITLES: Partial<Record<EventKind, string>> = { urgent: 'Urgent job', away: 'Someone is ill' };
  const needs = $derived(KINDS.find((one) => one.kind === kind)!.needs);
  const blocks = $derived(board.board.blocks.filter((one) => one.kind === 'work'));
  const options = $derived.by(() => {
    const unique = (all: [string, string][]) => [...new Map(all)].map(([id, label]) => ({ id, label }));
    switch (needs) {
      case 'person':
        return people.map((name) => ({ id: name, label: name }));
      case 'job':
        return (board.board.jobs ?? []).map((one) => ({ id: one.id, label: one.title }));
      case 'machine':
        return unique(
          blocks.flatMap((one) =>
            one.machine ? [[one.machine, choices.machine(one.machine)?.label ?? one.machine]] : [],
          ),
        );
      case 'block':
        return blocks.map((one) => ({ id: one.key, label: `${one.job}: ${one.label}, ${one.at}` }));
      case 'operation':
        return unique(blocks.flatMap((one) => (one.operation ? [[one.operation, one.label]] : [])));
    }
  });
  const event = $derived(eventOf(kind, chosen, untilOf(until, board.board.begins)));

  $effect(() => {
    if (open && event) told.ask(api.tryEvent(event), true);
  });

  async function happen() {
    if (!event) return;
    await schedule.happen(event);
    chosen = until = '';
    open = false;
  }
</script>

<Dialog bind:open title={TITLES[first] ?? 'Something happened'} wide>
  <div class="grid gap-3 sm:grid-cols-[1fr_1fr_8.5rem]">
    <Choice
      label="What"
      value={kind}
      options={KINDS.map((one) => ({ id: one.kind, label: one.label }))}
      onchange={(next) => {
        kind = next as EventKind;
        chosen = '';
      }}
    />
    <Choice
      label="Which"
      value={chosen}
      options={[{ id: '', label: 'Choose' }, ...options]}
      onchange={(next) => (chosen = next)}
    />
    {#if kind !== 'longer'}
      <label>
        <span class="small dim block">{kind === 'urgent' ? 'Wanted by' : 'Until'}</span>
        <input class="field num" type="time" bind:value={until} />
      </label>
    {/if}
  </div>
  <div class="mt-4 min-h-24" role="status">
    {#if event && told.trouble}
      <p class="text-(--stop)">{told.trouble}</p>
    {:else if event && told.value}
      <p class="text-lg">{told.value.said}</p>
      <ul class="small num mt-2">
        {#each told.value.promises.filter((one) => one.due) as one (one.job)}
          <li class:text-(--stop)={one.late_min > 0}>
            {one.title}: done {one.ends}, promised {one.due}
          </li>
        {/each}
      </ul>
    {:else if event}
      <p class="dim">Trying what it does …</p>
    {:else}
      <p class="dim">Choose, and this says what it does to every promise before anything is changed.</p>
    {/if}
  </div>
  <div class="mt-3 flex gap-2">
    <button
      class="main-button"
      disabled={!event || !told.value?.possible || schedule.busy}
      onclick={() => void happen()}>Plan around it</button
    >
    <button class="plain-button" onclick={() => (open = false)}>Cancel</button>
  </div>
</Dialog>
