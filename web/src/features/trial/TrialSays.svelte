<!-- What a trial says beside the tables, each with how sure it is; and whether it counts from now on. -->
<script lang="ts">
  import type { TrialAnswer } from '../../api/client';
  import { placeOfFactor } from '../../charts/factor';
  import { p } from '../../app/router';
  import { notices } from '../../ui/notices.svelte';
  import { shown } from '../../units/shown.svelte';
  import { figures } from '../../units/units';
  import type { TrialInHand } from './trial.svelte';

  let { trial }: { trial: TrialInHand } = $props();
  type Figure = NonNullable<TrialAnswer['removal_um_min']>;
  const times = (factor: number) => figures(factor, 2);

  async function accept() {
    const label = trial.set?.label ?? '';
    if (await trial.accept()) notices.say(`Plans use what the trial of ${label} says from now on.`);
  }
</script>

{#snippet shows(what: string, figure: Figure, said: (value: number) => string)}
  <section class="panel p-4" aria-label={what}>
    <h2 class="!text-xl">{what}</h2>
    <p class="mt-1 text-2xl font-bold">{times(figure.factor)} times the tables</p>
    <p class="dim text-lg">
      {said(figure.likely)}, nine times in ten between {said(figure.low)} and {said(figure.high)}; the tables say {said(
        figure.tables,
      )}
    </p>
    <svg viewBox="0 0 600 44" class="mt-2 w-full" aria-hidden="true">
      <line x1="0" x2="600" y1="22" y2="22" stroke="var(--line)" />
      <line x1="300" x2="300" y1="6" y2="38" stroke="var(--dim)" stroke-width="2" />
      <line
        x1={placeOfFactor(figure.low / figure.tables) * 6}
        x2={placeOfFactor(figure.high / figure.tables) * 6}
        y1="22"
        y2="22"
        stroke="var(--t5)"
        stroke-width="8"
      />
      <circle cx={placeOfFactor(figure.factor) * 6} cy="22" r="10" fill="var(--t5)" />
    </svg>
    <p class="dim num flex justify-between text-sm">
      <span>a quarter</span><span>as in the tables</span><span>four times</span>
    </p>
  </section>
{/snippet}

{#if trial.answer && trial.set}
  <h1 class="!text-3xl">{trial.set.label} on {trial.set.material_label.toLowerCase()}</h1>
  <div class="mt-4 grid gap-4">
    {#if trial.answer.removal_um_min}
      {@render shows('How fast it cuts', trial.answer.removal_um_min, (um) => `${shown.say(um, 'depth', 2)} a minute`)}
    {/if}
    {#if trial.answer.ra_um}
      {@render shows('How deep its own marks are', trial.answer.ra_um, (um) => `Ra ${shown.say(um, 'roughness', 2)}`)}
    {/if}
    {#if trial.answer.why_not}<p class="text-lg" role="status">It cannot count: {trial.answer.why_not}.</p>{/if}
    {#if trial.trouble}<p class="text-(--stop)" role="alert">{trial.trouble}</p>{/if}
    <div class="flex flex-wrap gap-3">
      <button class="main-button min-h-16 text-xl" disabled={!trial.answer.usable} onclick={() => void accept()}
        >Use it from now on</button
      >
      <button class="plain-button min-h-16" onclick={() => trial.forget()}>Stay with the tables</button>
      <button class="plain-button min-h-16" onclick={() => (trial.stage = 'measure')}>Back</button>
    </div>
    <p class="dim">
      It holds for this tool in all its grits, on this family of metals. Runs go on from it; it can be switched off in
      the
      <a class="underline" href={p('/log')}>log</a>, under what was learnt.
    </p>
  </div>
{/if}
