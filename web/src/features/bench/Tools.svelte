<!-- What stands beside the answers: pause, new abrasive, charge, measure, photo, note, around, undo, sound. -->
<script lang="ts">
  import Camera from '@lucide/svelte/icons/camera';
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
  import type { BenchRun } from './run.svelte';
  import { sound } from './sound.svelte';

  interface Props {
    bench: BenchRun;
    hand: Hand;
    onpause: () => void;
    onchange: () => void;
    oncharge: () => void;
    onopen: (sheet: 'measure' | 'photo' | 'note' | 'around') => void;
  }
  let { bench, hand, onpause, onchange, oncharge, onopen }: Props = $props();
</script>

{#snippet tool(Icon: Component<{ size?: number }>, label: string, key: string, run: () => void, off = false)}
  <button class="tool" disabled={off} onclick={run}>
    <Icon size={24} /><span>{label} <kbd>{key}</kbd></span>
  </button>
{/snippet}

<div class="ml-auto flex flex-wrap gap-1.5 lg:shrink-0 lg:flex-nowrap" role="group" aria-label="Beside the work">
  {#if hand.begun}
    {@render tool(hand.running ? Pause : Play, hand.running ? 'Pause' : 'Go on', 'P', onpause, !bench.ready)}
  {/if}
  {#if hand.change_after_s !== null}{@render tool(RefreshCw, `New ${hand.plan.spent.unit}`, 'C', onchange)}{/if}
  {#if hand.recharge_after_s !== null}{@render tool(RefreshCw, 'Charged', 'R', oncharge)}{/if}
  {@render tool(Ruler, 'Measure', 'M', () => onopen('measure'))}
  {@render tool(Camera, 'Photo', 'F', () => onopen('photo'))}
  {@render tool(NotebookPen, 'Note', 'N', () => onopen('note'))}
  {@render tool(Hourglass, 'Around', 'T', () => onopen('around'))}
  {@render tool(Undo2, 'Undo', 'Z', () => void bench.undo(), !bench.run.last || !bench.ready)}
  {@render tool(sound.on ? Volume2 : VolumeX, sound.on ? 'Sound' : 'Silent', 'S', () => sound.toggle())}
</div>

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
