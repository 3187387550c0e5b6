<!-- One of a list, as a native select: works with every keyboard and on every tablet. -->
<script lang="ts" generics="Id extends string">
  import Term from './Term.svelte';
  import type { TermId } from './terms';

  interface Props {
    label: string;
    /** The word of the trade that stands in the label, explained beside it. */
    term?: TermId;
    value: Id;
    options: { id: Id | string; label: string; group?: string }[];
    onchange: (id: Id) => void;
    hideLabel?: boolean;
  }
  let { label, value, options, onchange, hideLabel = false, term }: Props = $props();
  const id = $props.id();
  /** Chosen by hand and not by key: then the keys of the screen are meant again. */
  let byHand = false;

  /** A letter on a closed list would change it unseen: the list is opened instead, and the letter finds its place there. */
  function openInstead(event: KeyboardEvent & { currentTarget: HTMLSelectElement }) {
    byHand = false;
    if (event.key.length !== 1 || event.ctrlKey || event.altKey || event.metaKey || event.key === ' ') return;
    event.preventDefault();
    try {
      event.currentTarget.showPicker();
    } catch {
      // The browser cannot: then nothing happens, which is still better than a change that nobody saw.
    }
  }

  function choose(event: Event & { currentTarget: HTMLSelectElement }) {
    onchange(event.currentTarget.value as Id);
    if (byHand) event.currentTarget.blur();
  }

  const groups = $derived([...new Set(options.map((option) => option.group ?? ''))]);
</script>

<div class="min-w-0">
  <div class={hideLabel ? 'sr-only' : 'small dim flex items-center gap-1.5'}>
    <label for={id}>{label}</label>{#if term}<Term of={term} />{/if}
  </div>
  <select
    {id}
    class="field-choice"
    {value}
    onpointerdown={() => (byHand = true)}
    onkeydown={openInstead}
    onchange={choose}
  >
    {#each groups as group (group)}
      {#if group}
        <optgroup label={group}>
          {#each options.filter((option) => option.group === group) as option (option.id)}
            <option value={option.id}>{option.label}</option>
          {/each}
        </optgroup>
      {:else}
        {#each options.filter((option) => !option.group) as option (option.id)}
          <option value={option.id}>{option.label}</option>
        {/each}
      {/if}
    {/each}
  </select>
</div>
