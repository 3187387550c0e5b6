<!-- The light check failed: how deep, and then patch, whole face, or accept it. The run goes on along the new way. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import { api, type GoBack, type Hand, type MarkDepth } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import MarkDepthFields from '../../ui/MarkDepth.svelte';
  import WaysBack from '../../ui/WaysBack.svelte';
  import type { BenchRun } from './run.svelte';

  interface Props {
    bench: BenchRun;
    hand: Hand;
    open: boolean;
    onclose: () => void;
  }
  let { bench, hand, open, onclose }: Props = $props();
  let mark = $state.raw<MarkDepth>({ fingernail: true });
  const answer = new Answer<GoBack>();
  const back = $derived(answer.value?.goback);

  $effect(() => {
    if (open) answer.ask(api.waysBack(bench.run.id, mark), true);
  });

  async function go(extent: 'patch' | 'whole') {
    if (await bench.work('back', { ...mark, extent })) onclose();
  }

  async function accept() {
    if (await bench.work('accepted', mark)) onclose();
  }
</script>

{#snippet action(way: 'patch' | 'whole' | 'accept')}
  {#if way === 'accept'}
    <button class="plain-button min-h-14 !text-lg" disabled={!bench.ready} onclick={accept}>Accept it</button>
  {:else}
    <button class="main-button min-h-14 !text-lg" disabled={!bench.ready} onclick={() => go(way)}>Go back</button>
  {/if}
{/snippet}

<Dialog bind:open={() => open, (now) => now || onclose()} title="A deep mark after step {hand.step}, {hand.face}" wide>
  <div class="grid gap-2.5 text-lg">
    <MarkDepthFields {mark} papers={choices.papers} onchange={(next) => (mark = next)} />
    {#if answer.trouble}<p class="text-(--stop)" role="alert">{answer.trouble}</p>{/if}
    {#if back}<WaysBack {back} {action} />{/if}
  </div>
</Dialog>
