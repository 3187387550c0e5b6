<!-- The runs at the bench, to choose from. -->
<script lang="ts">
  import type { Run } from '../../api/client';
  import { p } from '../../app/router';
  import Standing from './Standing.svelte';
  import WhatNext from './WhatNext.svelte';

  let { runs }: { runs: Run[] } = $props();
</script>

<section class="mx-auto w-full max-w-4xl p-6" aria-label="Runs at the bench">
  <h1 class="!text-3xl">At the bench</h1>
  {#if runs.length}
    <ul class="mt-4 grid gap-3">
      {#each runs as run (run.id)}
        <li>
          <a
            class="panel flex min-h-20 items-center gap-6 px-5 py-3 hover:border-(--ink)"
            href={p('/bench/:id', { params: { id: String(run.id) } })}
          >
            <span class="flex-1">
              <b class="block text-2xl">{run.title}</b>
              <span class="dim text-lg"
                >{run.hand
                  ? `${run.hand.face}, piece ${run.hand.piece} of ${run.pieces}: ${run.hand.plan.label}`
                  : 'Every step is done'}</span
              >
            </span>
            <span class="dim text-lg">{run.hand?.running ? 'the clock runs' : run.hand?.begun ? 'paused' : ''}</span>
          </a>
        </li>
      {/each}
    </ul>
  {:else}
    <p class="mt-4 text-xl">Nothing is at the bench.</p>
    <Standing />
    <p class="dim mt-2 text-lg">
      Open a <a class="underline" href={p('/jobs')}>job</a> and press <kbd>B</kbd>: its plan comes here, one step at a
      time.
    </p>
  {/if}
  <WhatNext />
  <p class="mt-6 text-lg"><a class="go touch underline" href={p('/trial')}>Try a tool on a trial piece</a></p>
</section>
