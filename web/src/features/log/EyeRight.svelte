<!-- How often the person and the eye were right at light checks in this shop, by what turned out. -->
<script lang="ts">
  import { api, type Agreement } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import CopyTable from '../../ui/CopyTable.svelte';

  const answer = new Answer<Agreement>();
  answer.ask(api.whoWasRight());
  const ROWS: [keyof Agreement, string][] = [
    ['person', 'You'],
    ['eye', 'The eye'],
    ['together', 'Both, where you said the same'],
    ['person_apart', 'You, where you did not'],
    ['eye_apart', 'The eye, where you did not'],
  ];
  const percent = (share: number) => `${Math.round(100 * share)} %`;
</script>

{#if answer.trouble}<p class="text-(--stop)" role="alert">{answer.trouble}</p>{/if}
{#if answer.value}
  <section class="panel mt-4 p-4" aria-label="Who was right at light checks">
    <h2 class="!text-lg">Who was right at light checks</h2>
    <p class="small dim mb-2">
      What you see under your lamp is there. “Old marks gone” was right when nobody went back on that face later and the
      run came out as wanted. The share lies within the interval nineteen times of twenty.
    </p>
    {#if answer.value.person.of === 0}
      <p>Nothing to compare yet: ask the eye at the bench (<kbd>E</kbd>) and finish the run.</p>
    {:else}
      <table class="lines num w-full" aria-label="Who was right">
        <thead class="small dim text-left"><tr><th>Who</th><th>Right</th><th>Of</th><th>Between</th></tr></thead>
        <tbody>
          {#each ROWS as [key, label] (key)}
            {@const one = answer.value[key]}
            <tr
              ><td>{label}</td><td>{one.right}</td><td>{one.of}</td><td
                >{one.of ? `${percent(one.low)} and ${percent(one.high)}` : 'nothing known'}</td
              ></tr
            >
          {/each}
        </tbody>
      </table>
      <CopyTable />
    {/if}
  </section>
{/if}
