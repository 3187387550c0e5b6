<!-- What stands beside the answers: pause, new abrasive, charge, undo, measure; the rest there too, or behind one more tap. -->
<script lang="ts">
  import Camera from '@lucide/svelte/icons/camera';
  import Ellipsis from '@lucide/svelte/icons/ellipsis';
  import Eye from '@lucide/svelte/icons/eye';
  import Hourglass from '@lucide/svelte/icons/hourglass';
  import NotebookPen from '@lucide/svelte/icons/notebook-pen';
  import Pause from '@lucide/svelte/icons/pause';
  import Play from '@lucide/svelte/icons/play';
  import RefreshCw from '@lucide/svelte/icons/refresh-cw';
  import Ruler from '@lucide/svelte/icons/ruler';
  import Undo2 from '@lucide/svelte/icons/undo-2';
  import Volume2 from '@lucide/svelte/icons/volume-2';
  import VolumeX from '@lucide/svelte/icons/volume-x';
  import type { Component } from 'svelte';
  import type { Hand } from '../../api/client';
  import Dialog from '../../ui/Dialog.svelte';
  import type { BenchRun } from './run.svelte';
  import { sound } from '../../ui/sound.svelte';

  type Opens = 'eye' | 'measure' | 'photo' | 'note' | 'around';
  interface Props {
    bench: BenchRun;
    hand: Hand;
    onpause: () => void;
    onchange: () => void;
    oncharge: () => void;
    onopen: (sheet: Opens) => void;
  }
  let { bench, hand, onpause, onchange, oncharge, onopen }: Props = $props();
  let wide = $state(innerWidth);
  let more = $state(false);
  /** Room in pixels for all of them, beside six pieces and the way of going through them. */
  const ALL = 800;
  const pieces = $derived(bench.run.pieces > 1 ? 200 + 72 * Math.min(6, bench.run.pieces) : 0);
  const roomy = $derived(wide >= ALL + pieces);

  function opened(sheet: Opens) {
    more = false;
    onopen(sheet);
  }
</script>

<svelte:window bind:innerWidth={wide} />

{#snippet tool(Icon: Component<{ size?: number }>, label: string, key: string, run: () => void, off = false)}
  <button class="tool" disabled={off} onclick={run}>
    <Icon size={22} /><span
      >{label}
      {#if key}<kbd>{key}</kbd>{/if}</span
    >
  </button>
{/snippet}

{#snippet rest()}
  {@render tool(Ruler, 'Measure', 'M', () => opened('measure'))}
  {@render tool(Eye, 'Eye', 'E', () => opened('eye'))}
  {@render tool(Camera, 'Photo', 'F', () => opened('photo'))}
  {@render tool(NotebookPen, 'Note', 'N', () => opened('note'))}
  {@render tool(Hourglass, 'Around', 'T', () => opened('around'))}
  {@render tool(sound.on ? Volume2 : VolumeX, sound.on ? 'Sound' : 'Silent', 'S', () => sound.toggle())}
{/snippet}

<div class="ml-auto flex shrink-0 gap-1.5" role="group" aria-label="Beside the work">
  {#if hand.begun}
    {@render tool(hand.running ? Pause : Play, hand.running ? 'Pause' : 'Go on', 'P', onpause, !bench.ready)}
  {/if}
  {#if hand.change_after_s !== null}{@render tool(RefreshCw, `New ${hand.plan.spent.unit}`, 'C', onchange)}{/if}
  {#if hand.recharge_after_s !== null}{@render tool(RefreshCw, 'Charged', 'R', oncharge)}{/if}
  {@render tool(Undo2, 'Undo', 'Z', () => void bench.undo(), !bench.run.last || !bench.ready)}
  {#if roomy}{@render rest()}{:else}{@render tool(Ellipsis, 'More', '', () => (more = true))}{/if}
</div>
<Dialog bind:open={more} title="Beside the work">
  <div class="grid grid-cols-2 gap-2">{@render rest()}</div>
</Dialog>

<style>
  .tool {
    display: flex;
    min-width: 4.6rem;
    min-height: 64px;
    flex-direction: column;
    align-items: center;
    justify-content: center;
    gap: 3px;
    border: 1px solid var(--line);
    border-radius: 10px;
    background: var(--card);
    padding: 0 0.35rem;
    font-size: 0.95rem;
    white-space: nowrap;
    cursor: pointer;
  }
  @media (max-height: 560px) {
    .tool {
      min-height: 48px;
      min-width: 4rem;
      gap: 0;
      font-size: 0.87rem;
    }
  }
  .tool:hover {
    border-color: var(--ink);
  }
  .tool:disabled {
    opacity: 0.45;
    cursor: default;
  }
  kbd {
    border: 1px solid currentColor;
    border-radius: 4px;
    padding: 0 4px;
    font-size: 0.72rem;
    opacity: 0.8;
  }
</style>
