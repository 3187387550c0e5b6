<!-- What holds for the whole part: title, material, pieces, and how the person wants to work. -->
<script lang="ts">
  import { Switch } from '@skeletonlabs/skeleton-svelte';
  import Redo2 from '@lucide/svelte/icons/redo-2';
  import Undo2 from '@lucide/svelte/icons/undo-2';
  import { choices } from '../../api/catalogue.svelte';
  import type { Job } from '../../api/client';
  import { p } from '../../app/router';
  import Choice from '../../ui/Choice.svelte';
  import { difference } from '../../units/units';
  import NumberField from '../../ui/NumberField.svelte';
  import ChoiceBar from './ChoiceBar.svelte';
  import type { JobDraft } from './draft.svelte';
  import type { Saving } from './keeping.svelte';

  interface Props {
    draft: JobDraft;
    fresh: boolean;
    ondescribe: () => void;
    onweigh: () => void;
    onphoto: () => void;
  }
  let { draft, fresh, ondescribe, onweigh, onphoto }: Props = $props();
  let title = $state<HTMLInputElement>();
  /** The title before the typing: Escape gives it back. */
  let before = '';

  const SAID: Record<Saving, string> = {
    saved: 'Kept',
    saving: 'Keeping …',
    waiting: 'Keeping …',
    conflict: 'Changed elsewhere',
    failed: 'Not kept: the program does not answer. It waits in this browser, and is kept as soon as it does.',
    refused: 'Not kept yet; it waits in this browser',
    faulty: 'Not kept until the fault is mended',
  };
  const materials = $derived(
    (choices.all?.materials ?? []).map((one) => ({
      id: one.id,
      label: one.label,
      group: choices.familyLabel(one.family),
    })),
  );
  /** Each habit with what it costs in minutes against the best of them. */
  const habits = $derived.by(() => {
    const ways = draft.choices?.by_habit ?? [];
    const best = Math.min(...ways.filter((way) => way.possible).map((way) => way.minutes));
    return (choices.all?.habits ?? []).map((habit) => {
      const way = ways.find((one) => one.habit === habit.id);
      const more = way?.possible && way.minutes - best >= 0.25 ? `, ${difference(way.minutes - best)}` : '';
      return { ...habit, label: habit.label + more };
    });
  });
  const keeping = $derived(draft.keeping);

  $effect(() => {
    if (fresh) title?.select();
  });

  function change(change: Partial<Job>) {
    Object.assign(draft.job, change);
    draft.changed();
  }
</script>

<div class="flex flex-wrap items-end gap-x-3.5 gap-y-2 px-4.5 pt-3 pb-2.5">
  <div class="min-w-56 flex-1">
    <h1 class="sr-only">{draft.job.title}</h1>
    <div class="small dim flex items-center gap-3">
      <a class="go hover:underline" href={p('/')}>Jobs</a>
      <span class:text-(--stop)={keeping.unkept} role="status">{keeping.why ?? SAID[keeping.saving]}</span>
      {#if keeping.saving === 'conflict'}<button class="underline" onclick={() => draft.reload()}
          >Take what is kept</button
        ><button class="underline" onclick={() => keeping.keepMine()}>Keep mine</button>{/if}
      {#if keeping.saving === 'failed' || keeping.saving === 'refused'}<button
          class="underline"
          onclick={() => draft.retry()}>Try now</button
        >{/if}
    </div>
    <input
      bind:this={title}
      class="title w-full rounded-md border border-transparent bg-transparent px-1 hover:border-(--line)"
      aria-label="Title of the job"
      maxlength="200"
      value={draft.job.title}
      oninput={(event) => event.currentTarget.value.trim() && change({ title: event.currentTarget.value })}
      onkeydown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur(); // it is said: Escape takes nothing back any more
        if (event.key !== 'Escape' || event.currentTarget.value === before) return;
        change({ title: before });
        event.currentTarget.value = before;
      }}
      onfocus={() => (before = draft.job.title)}
      onblur={(event) => (event.currentTarget.value = draft.job.title)}
    />
  </div>
  <div class="w-52">
    <Choice
      label="Material"
      value={draft.job.material}
      options={materials}
      onchange={(material) => change({ material })}
    />
  </div>
  <div class="w-20">
    <NumberField
      label="Pieces"
      value={draft.job.pieces}
      integer
      faults={draft.faultsAt('pieces')}
      onchange={(pieces) => change({ pieces })}
    />
  </div>
  <div class="w-60">
    <Choice
      label="Grit steps"
      term="jump"
      value={draft.job.habit}
      options={habits}
      onchange={(habit) => change({ habit })}
    />
  </div>
  {#if draft.hasRack}
    <Switch
      class="flex h-9 items-center gap-2"
      checked={!draft.fromRack}
      onCheckedChange={({ checked }) => change({ use_rack: checked ? 'catalogue' : null })}
    >
      <Switch.Control><Switch.Thumb /></Switch.Control>
      <Switch.Label>Any tool</Switch.Label>
      <Switch.HiddenInput />
    </Switch>
  {/if}
  <div class="flex gap-1.5">
    <button
      class="plain-button !px-2"
      aria-label="Undo"
      title="Undo (Ctrl Z)"
      disabled={!draft.canUndo}
      onclick={() => draft.undo()}><Undo2 size={16} /></button
    >
    <button
      class="plain-button !px-2"
      aria-label="Redo"
      title="Redo (Ctrl Shift Z)"
      disabled={!draft.canRedo}
      onclick={() => draft.redo()}><Redo2 size={16} /></button
    >
    <button class="plain-button" onclick={ondescribe}>The part <kbd class="dim">E</kbd></button>
    <a class="plain-button" href={p('/jobs/:id/photo', { params: { id: String(draft.id) } })} onclick={onphoto}
      >Photo <kbd class="dim">P</kbd></a
    >
  </div>
  <div class="w-full"><ChoiceBar {draft} {onweigh} /></div>
</div>

<style>
  .title {
    font-size: 1.45rem;
    font-weight: 700;
    line-height: 1.25;
    margin-left: -0.3rem;
    outline-offset: -2px;
  }
</style>
