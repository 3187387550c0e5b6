<!-- Whether what is allowed for is right here: of the runs that were promised at nine in ten, how many kept to it. -->
<script lang="ts">
  import { api, type Calibration } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';

  const answer = new Answer<Calibration>();
  answer.ask(api.calibration());
  const LINES = { hands_on: 'Hands-on', cutting: 'Cutting' } as const;
  const percent = (share: number) => `${Math.round(100 * share)} %`;
</script>

{#if answer.value && answer.value.cutting.of > 0}
  <section class="panel mt-4 p-4" aria-label="Promises kept">
    <h2 class="!text-lg">“Allow up to”</h2>
    <p class="small dim mb-2">
      Nine in ten jobs should stay below it. Hands-on time is only known of runs at which every operation before and
      after was said to be done. The share lies within the interval nineteen times of twenty.
    </p>
    <ul class="num">
      {#each Object.entries(LINES) as [line, label] (line)}
        {@const one = answer.value[line as keyof typeof LINES]}
        <li>
          {label}: {one.of === 0
            ? 'nothing known yet'
            : `${one.right} of ${one.of} kept to it, between ${percent(one.low)} and ${percent(one.high)}`}
        </li>
      {/each}
    </ul>
  </section>
{/if}
