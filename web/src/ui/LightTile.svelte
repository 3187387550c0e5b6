<!-- A picture of the simulated surface. It says honestly that it is still being worked out, and has its figures in words. -->
<script lang="ts">
  import type { Sentence } from '../units/sentence';
  import { Answer } from './answer.svelte';
  import { shown } from '../units/shown.svelte';

  interface Props {
    /** Where the picture is, and where its figures are. */
    src: string;
    label: string;
    words?: () => Promise<Sentence>;
  }
  let { src, label, words }: Props = $props();
  /** The picture that is here, and the one that is not to be had. */
  let here = $state('');
  let failed = $state('');
  const fact = new Answer<Sentence>();
  const said = $derived(shown.tell(fact.value));

  $effect(() => {
    void src;
    return words && fact.ask(words());
  });
</script>

<figure class="min-w-0">
  <div class="frame relative overflow-hidden rounded-lg border border-(--line)">
    <img
      {src}
      alt="{label}{said ? `: ${said}` : ''}"
      class="block h-full w-full object-cover"
      class:opacity-0={here !== src}
      onload={() => (here = src)}
      onerror={() => (failed = src)}
    />
    {#if here !== src}
      <p class="small dim absolute inset-0 grid place-content-center text-center" role="status">
        {failed === src ? 'no picture' : 'drawing …'}
      </p>
    {/if}
  </div>
  <figcaption class="small mt-0.5 truncate" title={said}>{label}</figcaption>
</figure>

<style>
  .frame {
    aspect-ratio: var(--tile, 384 / 176); /* of the tiles of a plan, unless told */
    background: var(--raised);
  }
</style>
