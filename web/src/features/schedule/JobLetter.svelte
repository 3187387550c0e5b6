<!-- The letter of a job in its colour: never the colour alone. -->
<script lang="ts">
  import type { Mark } from './marks';

  let { mark }: { mark: Mark | undefined } = $props();
</script>

{#if mark}<b class="letter" style:--job={mark.colour} aria-hidden="true">{mark.letter}</b>{/if}

<style>
  .letter {
    display: inline-grid;
    flex: none;
    place-items: center;
    min-width: 1.4rem;
    height: 1.4rem;
    padding-inline: 0.2rem;
    border: 1.5px solid var(--job);
    border-radius: 5px;
    background: color-mix(in oklab, var(--job), var(--card) 78%);
    font-size: 0.8rem;
    font-weight: 700;
    line-height: 1;
  }
</style>
