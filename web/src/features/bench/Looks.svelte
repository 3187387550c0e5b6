<!-- What the step in hand should look like when it is done, and what it looks like when it is not. -->
<script lang="ts">
  import { api, type Hand, type Tile } from '../../api/client';
  import { Answer } from '../../ui/answer.svelte';
  import LightTile from '../../ui/LightTile.svelte';

  let { run, hand }: { run: number; hand: Hand } = $props();
  const answer = new Answer<Tile[]>();
  const which = $derived(`${hand.face}.${hand.route}.${hand.step}`);

  $effect(() => {
    void which;
    answer.ask(api.lightAtBench(run));
  });
</script>

<div class="grid w-full grid-cols-2 gap-3">
  {#each answer.value ?? [] as tile (tile.label)}
    <LightTile src="/api/light/{tile.key}.webp" label={tile.label} words={() => api.lightWords(tile.key)} />
  {/each}
</div>
