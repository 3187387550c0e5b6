<!-- A pad for gloved fingers: digits, point, back and enter. The keyboard works it too. -->
<script lang="ts">
  import Delete from '@lucide/svelte/icons/delete';
  import { onMount } from 'svelte';
  import { fromShown, readNumber, toShown } from '../units/units';
  import { shown } from '../units/shown.svelte';

  interface Props {
    /** What the next reading probably begins with, mm. */
    near: number;
    ontake: (mm: number) => void;
  }
  let { near, ontake }: Props = $props();
  const KEYS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0'] as const;
  let wrong = $state<string | null>(null);

  /** Two figures fewer than the gauge shows: only those that change are typed. */
  const begins = $derived.by(() => {
    const size = toShown(near, 'length', shown.system);
    const written = size.toFixed(shown.system === 'inch' ? 4 : 3);
    return written.slice(0, -2);
  });
  let text = $derived(begins);
  let pad = $state<HTMLElement>();

  function press(key: string) {
    wrong = null;
    if (key === 'back') text = text.slice(0, -1);
    else if (key === 'clear') text = '';
    else if (text.length < 10 && !(key === '.' && text.includes('.'))) text += key;
  }

  function enter() {
    const number = readNumber(text);
    if (typeof number !== 'number' || number <= 0) {
      wrong = typeof number === 'number' ? 'A size is above 0' : number.wrong;
      return;
    }
    ontake(fromShown(number, 'length', shown.system));
    text = begins;
  }

  /** Keys in a dialog that the pad is not part of are that dialog's. */
  function elsewhere(target: Element): boolean {
    const dialog = target.closest('[role=dialog]');
    return dialog !== null && !dialog.contains(pad ?? null);
  }

  function onkey(event: KeyboardEvent) {
    if (
      event.ctrlKey ||
      event.altKey ||
      event.metaKey ||
      (event.target as Element).closest('input, select') ||
      elsewhere(event.target as Element)
    )
      return;
    if (/^[0-9]$/.test(event.key)) press(event.key);
    else if (event.key === '.' || event.key === ',') press('.');
    else if (event.key === 'Backspace') press('back');
    else if (event.key === 'Enter' && !(event.target as Element).closest('button, a')) enter();
    else return;
    event.preventDefault();
  }
  onMount(() => {
    window.addEventListener('keydown', onkey);
    return () => window.removeEventListener('keydown', onkey);
  });
</script>

<div class="w-full max-w-88 outline-none" tabindex="-1" data-pad bind:this={pad}>
  <output
    class="num block rounded-lg border-2 border-(--line) bg-(--card) px-4 py-2 text-right text-4xl font-bold"
    aria-label="Reading">{text || '–'} <span class="dim text-lg">{shown.unit('length')}</span></output
  >
  {#if wrong}<p class="small text-(--stop)" role="alert">{wrong}</p>{/if}
  <div class="mt-2 grid grid-cols-3 gap-2">
    {#each KEYS as key (key)}
      <button class="key num" onclick={() => press(key)}>{key}</button>
    {/each}
    <button class="key" onclick={() => press('back')} aria-label="Take the last figure back"><Delete /></button>
    <button class="main-button col-span-3 min-h-14 text-xl" onclick={enter}>Take it <kbd>Enter</kbd></button>
  </div>
</div>

<style>
  .key {
    min-height: 3.5rem;
    border-radius: 10px;
    border: 1px solid var(--line);
    background: var(--raised);
    font-size: 1.7rem;
    font-weight: 650;
    display: grid;
    place-items: center;
    cursor: pointer;
  }
  .key:hover {
    border-color: var(--ink);
  }
</style>
