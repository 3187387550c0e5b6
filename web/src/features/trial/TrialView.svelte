<!-- A trial piece: choose, work and look, measure, and what it says. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { keepAwake } from '../../ui/awake';
  import { theme } from '../../ui/theme.svelte';
  import ChooseTrial from './ChooseTrial.svelte';
  import MeasureTrial from './MeasureTrial.svelte';
  import { TrialInHand } from './trial.svelte';
  import TrialSays from './TrialSays.svelte';
  import WorkTrial from './WorkTrial.svelte';

  const trial = new TrialInHand();
  onMount(() => {
    theme.bench(true);
    const sleep = keepAwake();
    return () => {
      trial.leave();
      theme.bench(false);
      sleep();
    };
  });
</script>

<svelte:head><title>Trial piece – Kelbrast</title></svelte:head>

<div class="mx-auto w-full max-w-4xl p-4 md:p-6">
  {#if trial.stage === 'work'}<WorkTrial {trial} />
  {:else if trial.stage === 'measure'}<MeasureTrial {trial} />
  {:else if trial.stage === 'result'}<TrialSays {trial} />
  {:else}<ChooseTrial {trial} />{/if}
</div>
