<!-- The square under the tool: the clock, and after every round what the old marks look like. -->
<script lang="ts">
  import Fold from '../../ui/Fold.svelte';
  import { useKeys } from '../../ui/keys.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { sound } from '../../ui/sound.svelte';
  import { shown } from '../../units/shown.svelte';
  import { clock } from '../../units/units';
  import PlacesRead from './PlacesRead.svelte';
  import type { Seen, TrialInHand } from './trial.svelte';

  let { trial }: { trial: TrialInHand } = $props();
  const set = $derived(trial.set);
  const looks = $derived(trial.file?.looks ?? []);
  const due = $derived(trial.seconds > 0 && trial.left <= 0);
  const SEEN: { id: Seen; label: string; key: string }[] = [
    { id: 'still', label: 'Still there', key: '1' },
    { id: 'half', label: 'Half gone', key: '2' },
    { id: 'gone', label: 'Gone', key: '3' },
  ];
  /** What was gone cannot come back. */
  const can = (seen: Seen) => seen !== 'still' || looks.at(-1)?.seen !== 'half';

  $effect(() => {
    if (due && trial.running) sound.play(880, 0.4);
  });

  const turn = () => (trial.running ? trial.stop() : trial.start());
  useKeys('At the trial piece', [
    { press: 'Space', shown: 'Space', does: 'Start the clock, or stop it', run: turn },
    { press: 'z', shown: 'Z', does: 'Undo the last look', run: () => trial.undo() },
    ...SEEN.map((one) => ({
      press: one.key,
      shown: one.key,
      does: `The old marks: ${one.label.toLowerCase()}`,
      run: () => trial.seconds > 0 && can(one.id) && trial.look(one.id),
    })),
  ]);
</script>

{#if set && trial.file}
  <h1 class="!text-3xl">{set.label}</h1>
  <p class="dim text-lg">
    on {set.material_label.toLowerCase()}, {set.machine_label.toLowerCase()}{set.rpm
      ? `, ${shown.say(set.rpm, 'turns')}`
      : ''}
  </p>
  {#if !looks.length && !trial.seconds}
    <ol class="mt-4 list-decimal space-y-1.5 pl-6 text-xl">
      <li>
        Mark a square of {shown.say(set.side_mm, 'length')} on a scrap, and give all of it marks of
        <b>{set.grade}</b>, crossed.
      </li>
      <li>Weigh or measure it, if you can: it makes the answer surer.</li>
      <li>Work it as usual. The clock says when to look.</li>
    </ol>
    <Fold label="Weigh or measure it first" class="mt-3">
      <div class="grid gap-3 pt-2 sm:grid-cols-2">
        <div class="flex items-end gap-2">
          <div class="flex-1">
            <NumberField
              label="Weight before, g"
              value={trial.file.weighed?.before_g}
              onchange={(before_g) => trial.change({ weighed: { before_g, after_g: before_g } })}
              onclear={() => trial.change({ weighed: null })}
            />
          </div>
          <button
            class="plain-button touch"
            onclick={async () => {
              const before_g = await trial.read('balance', null);
              if (before_g !== null) trial.change({ weighed: { before_g, after_g: before_g } });
            }}>From the balance</button
          >
        </div>
        <PlacesRead
          label="Thickness before, mm, at a few places"
          values={trial.file.measured?.before_mm ?? []}
          onread={() => trial.read('micrometer', null)}
          onchange={(before_mm) =>
            trial.change({ measured: before_mm.length ? { before_mm, after_mm: before_mm } : null })}
        />
      </div>
    </Fold>
  {/if}
  {#if trial.file.simulated}
    <p class="mt-2 text-lg" role="status">
      A stand-in read this, so the trial cannot count.
      <button class="touch font-semibold underline" onclick={() => trial.unread()}>Remove what it read</button>
    </p>
  {/if}
  <div class="my-4 flex flex-wrap items-center gap-6">
    <p class="num text-[5.5rem] leading-none font-bold" role="timer" aria-label="Worked">{clock(trial.seconds)}</p>
    <p class="text-xl" role="status">
      {#if due}<b class="text-(--go)">Look now: under a low lamp, along the face.</b>
      {:else if trial.seconds > 0}look in {clock(trial.left)}
      {:else}first look after {clock(set.round_s)}{/if}
      <span class="dim block text-lg"
        >{set.expected_s
          ? `by the tables gone after ${clock(set.expected_s)}`
          : 'the tables do not expect them to go'}</span
      >
    </p>
  </div>
  <div class="grid gap-3" role="group" aria-label="Answers">
    <button class="main-button min-h-20 text-2xl" onclick={turn}
      >{trial.running ? 'Stop the clock' : trial.seconds ? 'Go on' : 'Start the clock'}
      <kbd class="rounded border px-2 text-base">Space</kbd></button
    >
    {#if trial.seconds > 0}
      <h2 class="mt-2 !text-xl">The old marks are</h2>
      <div class="grid gap-3 sm:grid-cols-3">
        {#each SEEN as one (one.id)}
          <button class="plain-button min-h-20 text-2xl" disabled={!can(one.id)} onclick={() => trial.look(one.id)}
            >{one.label} <kbd class="rounded border px-2 text-base">{one.key}</kbd></button
          >
        {/each}
      </div>
    {/if}
  </div>
  {#if looks.length}
    <p class="mt-3 text-lg" aria-label="Looks so far">
      {looks
        .map((look) => `${clock(look.seconds)} ${SEEN.find((one) => one.id === look.seen)?.label.toLowerCase()}`)
        .join(' · ')}
      <button class="touch ml-3 font-semibold underline" onclick={() => trial.undo()}>Undo <kbd>Z</kbd></button>
    </p>
  {/if}
  <ul class="dim mt-5 grid gap-1 text-lg" aria-label="Beware">
    {#each set.cautions as caution (caution)}<li>{caution}</li>{/each}
  </ul>
  <div class="mt-5 flex flex-wrap gap-3">
    {#if looks.length}
      <button class="plain-button touch" onclick={() => (trial.stage = 'measure')}>Enough: they will not go</button>
    {/if}
    <button class="plain-button touch" onclick={() => trial.forget()}>Leave this trial</button>
  </div>
{/if}
