<!-- What holds for the whole job in two lines, everything else to do with it under Options, and the next thing: Start. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import type { Job } from '../../api/client';
  import type { Group } from '../../ui/ActionMenu.svelte';
  import OptionsMenu from '../../ui/OptionsMenu.svelte';
  import Choice from '../../ui/Choice.svelte';
  import OwnChoice from '../../own/OwnChoice.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import Popup from '../../ui/Popup.svelte';
  import { dueSaid } from '../../units/due';
  import { counted, difference, duration } from '../../units/units';
  import type { JobDraft } from './draft.svelte';
  import type { Saving } from './keeping.svelte';

  interface Props {
    draft: JobDraft;
    fresh: boolean;
    options: Group[];
    /** The part is asked about, and not planned yet. */
    asking: boolean;
    /** All faces are shown side by side; null where there is only one. */
    whole: boolean | null;
    onwhole: (whole: boolean) => void;
    onorder: () => void;
    onstart: () => void;
  }
  let { draft, fresh, options, asking, whole, onwhole, onorder, onstart }: Props = $props();
  let title = $state<HTMLInputElement>();
  /** The title before the typing: Escape gives it back. */
  let before = '';

  const SAID: Record<Saving, string> = {
    saved: 'Saved',
    saving: 'Saving …',
    waiting: 'Saving …',
    conflict: 'Changed elsewhere',
    failed: 'Not saved: the program does not answer. It waits in this browser, and is saved as soon as it does.',
    refused: 'Not saved yet; it waits in this browser',
    faulty: 'Not saved until the fault is fixed',
  };

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
  const plan = $derived(draft.plan);
  const lots = $derived(plan?.lots ?? []);
  const pieces = $derived(
    counted(draft.job.pieces, 'piece') +
      (lots.length > 1 ? ` in ${lots.length} lots of ${lots.at(-1) === lots[0] ? '' : 'up to '}${lots[0]}` : ''),
  );
  const material = $derived(choices.all?.materials.find((one) => one.id === draft.job.material)?.label ?? '');

  $effect(() => {
    if (fresh) title?.select();
  });

  function change(change: Partial<Job>) {
    Object.assign(draft.job, change);
    draft.changed();
  }
</script>

<header class="flex items-start gap-x-4 px-4.5 pt-3 pb-2.5" aria-label="Job">
  <div class="min-w-0 flex-1">
    <h1 class="sr-only">{draft.job.title}</h1>
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
    <div class="line dim" class:stale={draft.stale} aria-busy={draft.stale}>
      {#if asking}<span>Four questions, then the plan. Everything can be changed later.</span>{:else}
        <Popup label="Material and pieces">
          {#snippet face()}{material} · {pieces}{/snippet}
          <OwnChoice
            label="Material"
            kind="material"
            value={draft.job.material}
            options={choices.materials}
            onchange={(material) => change({ material })}
          />
          <NumberField
            label="Pieces"
            value={draft.job.pieces}
            integer
            faults={draft.faultsAt('pieces')}
            onchange={(pieces) => change({ pieces })}
          />
          <Choice
            label="Grit steps"
            term="jump"
            value={draft.job.habit}
            options={habits}
            onchange={(habit) => change({ habit })}
          />
        </Popup>
        {#if plan?.hands_on_minutes}
          <span role="group" aria-label="Totals" aria-busy={draft.stale}
            ><b class="text-(--ink)">{duration(plan.hands_on_minutes)} hands-on</b>{plan.hands_on_minutes_high
              ? `, allow up to ${duration(plan.hands_on_minutes_high)}`
              : ''}</span
          >
        {/if}
      {/if}
      {#if draft.job.due}<button class="min-h-[24px] underline decoration-dotted underline-offset-4" onclick={onorder}
          >promised {dueSaid(draft.job.due)}</button
        >{/if}
      <span class:text-(--stop)={keeping.unkept} role="status">{keeping.why ?? SAID[keeping.saving]}</span>
      {#if keeping.saving === 'conflict'}<button class="underline" onclick={() => draft.reload()}>Take theirs</button
        ><button class="underline" onclick={() => keeping.keepMine()}>Keep mine</button>{/if}
      {#if keeping.saving === 'failed' || keeping.saving === 'refused'}<button
          class="underline"
          onclick={() => draft.retry()}>Try now</button
        >{/if}
    </div>
  </div>
  <div class="flex gap-2.5" class:hidden={asking}>
    {#if whole !== null}
      <!-- On a phone it stands under Options. -->
      <button class="plain-button max-md:hidden" onclick={() => onwhole(!whole)}
        >{whole ? 'One face' : 'Whole part'}</button
      >
    {/if}
    <OptionsMenu groups={options} />
    <!-- On a phone the next thing is where the thumb is. -->
    <div class="max-md:hidden">{@render start()}</div>
  </div>
</header>

{#snippet start()}
  <button
    class="main-button min-w-26 text-[1.05rem]"
    disabled={!plan?.possible || draft.leaving || draft.stale}
    aria-busy={draft.leaving}
    onclick={onstart}>{draft.leaving ? 'Going …' : 'Start'} <kbd class="rounded border px-1.5">B</kbd></button
  >
{/snippet}

<style>
  .line > :global(*) {
    display: inline-block;
  }
  .line > :global(:not(:last-child))::after {
    content: '·';
    display: inline-block;
    margin-left: 0.35em;
  }
  .title {
    font-size: 1.6rem;
    font-weight: 700;
    line-height: 1.25;
    margin-left: -0.3rem;
    outline-offset: -2px;
  }
</style>
