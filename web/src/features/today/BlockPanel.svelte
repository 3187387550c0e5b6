<!-- The block that was chosen: where it stands, to put it elsewhere, and what would be if it went first. -->
<script lang="ts">
  import { api, type Block } from '../../api/client';
  import { clockAt } from '../../charts/board';
  import { Answer } from '../../ui/answer.svelte';
  import Choice from '../../ui/Choice.svelte';
  import { counted, duration } from '../../units/units';
  import type { Today } from './today.svelte';

  let { today, block, begins, people }: { today: Today; block: Block; begins: string; people: string[] } = $props();
  const first = new Answer<Awaited<ReturnType<typeof api.ifFirst>>>();
  const at = $derived(clockAt(block.from_min, begins));

  /** A time of the block's own day as minutes since the board begins. */
  function minuteOf(clock: string): number | null {
    const [hours, minutes] = clock.split(':').map(Number);
    const [h, m] = begins.split(':').map(Number);
    if (hours === undefined || minutes === undefined || Number.isNaN(hours + minutes)) return null;
    const day = Math.floor((block.from_min + (h ?? 0) * 60 + (m ?? 0)) / 1440);
    return day * 1440 + hours * 60 + minutes - (h ?? 0) * 60 - (m ?? 0);
  }

  function move(clock: string) {
    const minute = minuteOf(clock);
    if (minute !== null)
      void today.pin(block.key, minute - (block.from_min - block.starts_min), block.person, block.spindle);
  }
</script>

<section class="panel grid gap-3 p-4" aria-label="Block">
  <div>
    <h2>{block.label}</h2>
    <p class="small dim">
      {block.job}{block.face ? `, ${block.face}` : ''}; {duration(block.to_min - block.from_min)} from {at}{block.late_min
        ? `, late by ${duration(block.late_min)}`
        : ''}
    </p>
  </div>
  {#if block.kind === 'work'}
    <div class="grid grid-cols-2 gap-3">
      <label>
        <span class="small dim block">Begins at</span>
        <input class="field num" type="time" value={at} onchange={(event) => move(event.currentTarget.value)} />
      </label>
      <Choice
        label="Done by"
        value={block.person ?? ''}
        options={people.map((name) => ({ id: name, label: name }))}
        onchange={(name) => void today.pin(block.key, block.starts_min, name, block.spindle)}
      />
    </div>
  {/if}
  <div class="flex flex-wrap gap-2">
    {#if block.fixed}
      <button class="plain-button" onclick={() => void today.unpin(block.key)}>Let it go</button>
    {:else if block.kind === 'work'}
      <button
        class="plain-button"
        onclick={() => void today.pin(block.key, block.starts_min, block.person, block.spindle)}>Keep it here</button
      >
    {/if}
    <button class="plain-button" onclick={() => void today.finish(block.key)}>It is done</button>
    <button class="plain-button" onclick={() => first.ask(api.ifFirst(block.key))}>If it went first?</button>
  </div>
  {#if first.value}
    {@const { now, first: then } = first.value}
    <p role="status">
      {#if !now || !then}It cannot go first: what stands where it was put is in the way.
      {:else}
        {then.late_min === now.late_min
          ? 'No more would be late'
          : `${duration(Math.abs(then.late_min - now.late_min))} ${then.late_min > now.late_min ? 'more' : 'less'} would be late`},
        {then.changes === now.changes
          ? 'as many changes'
          : `${counted(Math.abs(then.changes - now.changes), then.changes > now.changes ? 'more change' : 'fewer change')}`},
        and the day would end at {clockAt(then.ends_min, begins)} instead of {clockAt(now.ends_min, begins)}.
      {/if}
    </p>
    <ul class="small num">
      {#each first.value.changes as change (change)}<li>{change}</li>{/each}
    </ul>
  {/if}
  {#if first.trouble}<p class="text-(--stop)" role="alert">{first.trouble}</p>{/if}
</section>
