<!-- The bench: the run in hand, or the runs to choose from. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { api, Problem, type Run } from '../../api/client';
  import { allRemembered, forgetOthers, remembered } from '../../api/remembered';
  import { navigate, p, route } from '../../app/router';
  import { theme } from '../../ui/theme.svelte';
  import AtWork from './AtWork.svelte';
  import { keepAwake } from '../../ui/awake';
  import OpenRuns from './OpenRuns.svelte';
  import { BenchRun } from './run.svelte';

  let bench = $state.raw<BenchRun | null>(null);
  let runs = $state.raw<Run[] | null>(null);
  let trouble = $state<string | null>(null);

  onMount(() => {
    theme.bench(true);
    const sleep = keepAwake();
    return () => {
      theme.bench(false);
      sleep();
    };
  });

  $effect(() => {
    const id = Number(route.params.id);
    let left = false;
    let mine: BenchRun | null = null;
    bench = null;
    trouble = null;
    // Without an answer the bench opens with what this browser saw last.
    const failed = (problem: Error) => {
      if (left) return;
      const away = problem instanceof Problem && problem.status === 0;
      const known = away && id ? remembered(id) : null;
      if (known) bench = mine = new BenchRun(known.run, known.at);
      else if (away && !id && allRemembered().length) show(allRemembered().map((one) => one.run));
      else trouble = problem.message;
    };
    const show = (open: Run[]) => {
      if (left) return;
      runs = open;
      // With one run at the bench there is nothing to choose.
      if (open.length === 1) void navigate('/bench/:id', { params: { id: String(open[0]!.id) }, replace: true });
    };
    if (id)
      api.run(id).then((run) => {
        if (!left && run) bench = mine = new BenchRun(run);
      }, failed);
    else
      api.runs().then((open) => {
        forgetOthers(open.map((one) => one.id));
        show(open);
      }, failed);
    return () => {
      left = true;
      mine?.leave();
    };
  });
</script>

<svelte:head><title>{bench?.run.title ?? 'Bench'} – Kelbrast</title></svelte:head>

{#if trouble}
  <div class="m-auto text-center" role="alert">
    <h1>This cannot be shown</h1>
    <p class="mt-2">{trouble}. <a class="underline" href={p('/bench')}>Go to the bench</a></p>
  </div>
{:else if bench}
  <AtWork {bench} />
{:else if !route.params.id && runs}
  <OpenRuns {runs} />
{:else}
  <p class="dim p-6">Opening the bench …</p>
{/if}
