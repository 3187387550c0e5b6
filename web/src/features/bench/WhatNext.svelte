<!-- What is next for each person, by the board of the day. -->
<script lang="ts">
  import { api, type Board } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import { nowAndNext, timeAt } from '../../charts/board';

  const day = new Answer<Board>();
  day.ask(api.day()); // without an order there is no board, and nothing to say
  const board = $derived(day.value);
  const people = $derived([
    ...new Set((board?.board.blocks ?? []).flatMap((one) => (one.person === null ? [] : [one.person]))),
  ]);
</script>

{#if board && people.length}
  <section class="mt-6" aria-label="What next">
    <h2 class="!text-xl">What next</h2>
    <ul class="grid gap-1 text-lg">
      {#each people as person (person)}
        {@const [next] = nowAndNext(board.board.blocks, person, board.done, board.now_min)}
        <li>
          <b>{person}</b>:
          {#if next}{timeAt(next.from_min, board.board.begins, board.day)}
            <a class="underline" href="/jobs/{board.ids[next.key]}">{next.job}</a>, {next.label}{:else}nothing more{/if}
        </li>
      {/each}
    </ul>
    <a class="mt-2 inline-flex touch items-center underline" href="/schedule">The whole day</a>
  </section>
{/if}
