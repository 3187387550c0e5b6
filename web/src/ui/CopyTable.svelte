<!-- Copies the table that it stands under, as text for a spreadsheet or a letter. -->
<script lang="ts">
  import Copy from '@lucide/svelte/icons/copy';
  import { notices } from './notices.svelte';
  import { tableText } from './table-text';

  let button: HTMLButtonElement;

  async function copy() {
    let above = button.previousElementSibling;
    while (above && !above.matches('table, :has(table)')) above = above.previousElementSibling;
    if (above && !(above instanceof HTMLTableElement)) above = above.querySelector('table');
    try {
      if (!above) throw new Error('no table');
      await navigator.clipboard.writeText(tableText(above as HTMLTableElement));
      notices.say('The table is copied as text.');
    } catch {
      notices.say('This browser lets nothing be copied from here: mark the table and copy it by hand.', 'trouble');
    }
  }
</script>

<button bind:this={button} class="go small dim gap-1.5 underline" onclick={copy}><Copy size={14} />Copy as text</button>
