<!-- The steps of the face in hand: done with their time, the one now, what is next. -->
<script lang="ts">
  import type { Run } from '../../api/client';
  import { temperColour } from '../../charts/temper';
  import { clock, duration, plannedClock } from '../../units/units';

  let { run }: { run: Run } = $props();
  const steps = $derived(run.strip.filter((one) => one.state !== 'dropped'));
  const SAID = { gone: '', back: 'went back', skipped: 'left out', dropped: '', now: 'now', next: '' };
</script>

<div class="strip flex items-center gap-3">
  <ol class="flex min-w-0 flex-1 gap-2" aria-label="Steps of {run.hand?.face ?? 'this face'}">
    {#each steps as step (`${step.route}.${step.step}`)}
      {@const now = step.state === 'now'}
      <li
        class="step flex min-w-0 flex-1 items-baseline gap-2 rounded-lg px-3 py-2.5 font-semibold"
        class:now
        class:over={step.state === 'gone'}
        class:back={step.state === 'back'}
        style:--grain={temperColour(step.grain_um)}
        aria-current={now ? 'step' : undefined}
      >
        <span class="flex-1 truncate" title={step.label}>{step.label}</span>
        <span class="num mono shrink-0"
          >{SAID[step.state] || (step.state === 'next' ? plannedClock(step.planned_s) : clock(step.seconds))}</span
        >
      </li>
    {/each}
  </ol>
  <p class="num dim text-right leading-tight">
    hands-on <b>{duration(run.hands_on_minutes)}</b><br />{duration(run.left_minutes)} left
  </p>
</div>

<style>
  @media (max-height: 700px) {
    .strip {
      display: none;
    }
  }
  .step {
    background: var(--card);
    color: var(--dim);
    border-bottom: 4px solid var(--grain);
  }
  .over {
    background: var(--go-soft);
    color: var(--go);
  }
  .back {
    background: var(--stop-soft);
    color: var(--stop);
  }
  .now {
    background: var(--raised);
    color: var(--ink);
    outline: 2px solid var(--grain);
  }
</style>
