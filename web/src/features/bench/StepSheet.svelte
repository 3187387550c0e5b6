<!-- All of the step in hand: what to mind, when it is done, how to work, what it should look like. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import type { Hand, Run } from '../../api/client';
  import Dialog from '../../ui/Dialog.svelte';
  import { canSpeak } from '../../ui/speech';
  import { LAYS } from './lays';
  import Looks from './Looks.svelte';

  interface Props {
    run: Run;
    hand: Hand;
    open: boolean;
    onclose: () => void;
    onaloud: () => void;
  }
  let { run, hand, open, onclose, onaloud }: Props = $props();
  const step = $derived(hand.plan);
  const drawing = $derived(choices.machine(step.machine)?.drawing);
</script>

<Dialog bind:open={() => open, (now) => now || onclose()} title={step.label} wide>
  <div class="grid gap-3 text-lg">
    {#if canSpeak()}
      <button class="plain-button touch justify-self-start" onclick={onaloud}>Read it aloud <kbd>A</kbd></button>
    {/if}
    <ul class="cautions" aria-label="Cautions of this step">
      {#each step.cautions as caution (caution)}<li>{caution}</li>{/each}
    </ul>
    <p><b>Done when:</b> {step.check}</p>
    <p>
      {LAYS[step.lay]}
      {drawing?.where ?? ''}
    </p>
    {#if step.advice?.length}
      <ul class="grid gap-1" aria-label="Good to know">
        {#each step.advice as one (one)}<li>{one}</li>{/each}
      </ul>
    {/if}
    <Looks run={run.id} {hand} job={run.job_id} />
    {#if run.cautions.length}
      <section>
        <h2>For the whole part</h2>
        <ul class="grid gap-1">
          {#each run.cautions as caution (caution)}<li>{caution}</li>{/each}
        </ul>
      </section>
    {/if}
  </div>
</Dialog>

<style>
  .cautions {
    display: grid;
    gap: 0.35rem;
    background: var(--stop-soft);
    color: var(--stop);
    border-radius: 10px;
    padding: 0.6rem 0.9rem;
  }
</style>
