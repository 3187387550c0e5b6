<!-- The fault table: what is seen at the bench, why, what cures it, what avoids it. -->
<script lang="ts">
  import { api, type FaultOfWork } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';

  const table = new Answer<FaultOfWork[]>();
  let find = $state('');
  const rows = $derived(
    (table.value ?? []).filter((one) =>
      find
        .toLowerCase()
        .split(/\s+/)
        .every((word) => JSON.stringify(one).toLowerCase().includes(word)),
    ),
  );
  table.ask(api.faults());
</script>

<input class="field mb-3 !w-72" aria-label="Filter" placeholder="furrow, burnt, haze …" bind:value={find} />
{#if table.trouble}<p class="text-(--stop)" role="alert">{table.trouble}</p>{/if}
<ul class="grid gap-2.5 md:grid-cols-2">
  {#each rows as one (one.id)}
    <li class="panel p-4">
      <h2 class="!text-base">{one.seen}</h2>
      <h3>Why</h3>
      <ul>
        {#each one.why as why (why)}<li>{why}</li>{/each}
      </ul>
      <h3>What to do</h3>
      <ul>
        {#each one.cure as cure (cure)}<li>{cure}</li>{/each}
      </ul>
      <h3>Next time</h3>
      <p>{one.avoid}</p>
    </li>
  {/each}
</ul>
{#if table.value}<p class="small dim mt-3">Common practice at the bench, in our own words.</p>{/if}

<style>
  h3 {
    margin-top: 0.4rem;
    font-size: 0.87rem;
    font-weight: 600;
    color: var(--dim);
  }
  li ul {
    list-style: disc;
    padding-left: 1.1rem;
  }
</style>
